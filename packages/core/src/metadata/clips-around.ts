/** Files that list the frames of each clip inside it: `walk: { fps: 8, frames: [ … ] }`. What stands around a frame is then its clip. */
import { facingOfWord } from "../facing";
import type { Reading } from "../model";
import type { MetadataRecord, RecordGroup } from "./groups";
import { timeAt } from "./read";
import { valueAt } from "./values";
import { CLIP_WORDS, FPS_WORDS, LOOP_WORDS, lastPart, NAME_WORDS, says, TIME_WORDS, unitOfTimes } from "./words";

/** What of a reading changes if frames stand inside clips; nothing if nothing tells so. */
export function clipsAround(
  { pattern, records }: RecordGroup,
  { fields, timeAs }: Pick<Reading, "fields" | "timeAs">,
): Partial<Pick<Reading, "fields" | "timeAs">> {
  const [first] = records;
  if (!first || first.keys.length < 2) return {};
  const around = [...(first.around[0]?.keys() ?? [])].filter((path) => !path.includes(".")).map((path) => `../${path}`);
  const used = new Set<string>(Object.values(fields));
  const find = (words: readonly string[], type: readonly string[]) =>
    around.find((path) => !used.has(path) && says(lastPart(path), words) && type.includes(typeof valueAt(first, path)));
  const loop = find(LOOP_WORDS, ["boolean", "string", "number"]);
  const isTime = (path: string) => typeof valueAt(first, path) === "number" || WITH_UNIT.test(String(valueAt(first, path)));
  const time = around.find((path) => !used.has(path) && says(lastPart(path), [...FPS_WORDS, ...TIME_WORDS]) && isTime(path));
  const telling = loop !== undefined || time !== undefined || says(pattern, CLIP_WORDS) || fields.name === undefined;
  const clip = find(NAME_WORDS, ["string"]) ?? (records.some(({ keys }) => !/^\d+$/.test(keys.at(-2) as string)) ? "../$key" : undefined);
  if (!telling || clip === undefined || records.some((record) => /\.[a-z]{3,4}$/i.test(String(valueAt(record, clip))))) return {};
  const byFacing = clip === "../$key" && first.keys.length > 2 && records.every(({ keys }) => facingOfWord(keys.at(-2) as string) !== null);
  const timed = fields.time === undefined ? time : undefined;
  return {
    fields: {
      ...fields,
      ...(byFacing ? { clip: "../../$key", facing: clip } : { clip }),
      ...(loop === undefined ? {} : { loop }),
      ...(timed === undefined ? {} : { [isTotal(records, timed) ? "total" : "time"]: timed }),
    },
    timeAs:
      timed === undefined
        ? timeAs
        : unitOfTimes(
            records.map((record) => Number(valueAt(record, timed))),
            timed,
          ),
  };
}

/** A time with its unit beside it. */
const WITH_UNIT = /^\d+\.?\d*\s*(ms|msec|s|secs?)$/i;

/** A time that a clip says once and that is long is that of all its frames together. */
function isTotal(records: readonly MetadataRecord[], path: string): boolean {
  if (says(lastPart(path), FPS_WORDS)) return false;
  const times = records.map((record) => timeAt(record, path, "ms")).filter((each) => each !== null);
  const whole = records.every((record) => WITH_UNIT.test(String(valueAt(record, path))) || Number(valueAt(record, path)) >= 400);
  return whole && times.length > 0 && times.every((ms) => ms >= 250);
}
