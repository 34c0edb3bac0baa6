// npm run handout: writes the script and the style of the page to hand round into the core.
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { handoutParts } from "./handout-parts";

writeFileSync(join(import.meta.dirname, "../packages/core/src/deliver/handout-parts.ts"), await handoutParts());
