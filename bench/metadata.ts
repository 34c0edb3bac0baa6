/**
 * `npm run bench:metadata`: measures how many generated descriptions of atlases are read correctly, grouped by their properties, and how
 * long that takes.
 */
import { byDimension, percentOf, verdictOf } from "../packages/core/src/metadata/measured.fixture";

const DESCRIPTIONS = 2000;
/** Others than those that the tests ask for. */
const FROM = 100_000;

const started = performance.now();
const verdicts = Array.from({ length: DESCRIPTIONS }, (_, k) => verdictOf(FROM + k));
const ms = performance.now() - started;
console.log(`${"".padEnd(31)} ${"count".padStart(5)} ${"rect.".padStart(6)} ${"extras".padStart(6)} ${"clips".padStart(6)}`);
for (const line of byDimension(verdicts)) console.log(line);
const silent = verdicts.filter((each) => each.silent).length;
const doubtful = verdicts.filter((each) => each.rectangles && each.doubtful).length;
console.log(
  `\n${DESCRIPTIONS} descriptions: rectangles and names ${percentOf(verdicts.map((each) => each.rectangles))} %, extras ${percentOf(verdicts.map((each) => each.extras))} %, ` +
    `clips ${percentOf(verdicts.map((each) => each.clips))} %; wrong without a word ${((100 * silent) / DESCRIPTIONS).toFixed(2)} %; right but called doubtful ` +
    `${((100 * doubtful) / DESCRIPTIONS).toFixed(1)} %; ${(ms / DESCRIPTIONS).toFixed(0)} ms each`,
);
