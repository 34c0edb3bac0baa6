/** Writes the JSON Schemas of our formats from the Zod schemas that the code itself uses. A test holds them up to date. */
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { SCHEMAS } from "./schemas";

for (const [name, schema] of Object.entries(SCHEMAS)) writeFileSync(join(import.meta.dirname, "../docs/formats", name), schema);
