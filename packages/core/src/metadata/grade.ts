/** Grades how sure a reading is, with reasons, and lists what it leaves unused. */
import type { Reading } from "../model";
import type { ParsedMetadata } from "../notation";
import { t } from "../words";
import { CELLS } from "./cells";
import type { Described } from "./described";
import { isSeen } from "./described";
import { type Evidence, evidenceOf } from "./evidence";
import { groupsOf, type MetadataRecord, type RecordGroup } from "./groups";
import { commonFields } from "./name-field";
import { frameRecords, type ReadFrame, readFrames } from "./read";
import { type FoundRectangles, findRectangles } from "./rectangles";

/** Records or numbers of a file that a reading does not use. */
export interface Unused {
  /** Path of the records, or of a field in them. */
  readonly where: string;
  readonly why: string;
  readonly count: number;
}

export interface Grade {
  readonly grade: "sure" | "doubtful";
  /** Reasons for doubt, in words for people; empty if it is sure. */
  readonly reasons: readonly string[];
  readonly unused: readonly Unused[];
}

interface Graded {
  readonly parsed: ParsedMetadata;
  readonly reading: Reading;
  readonly described: Described;
  /** All groups of records of the file, where they are known already. */
  readonly groups?: readonly RecordGroup[];
  /** Further reasons for doubt. */
  readonly doubts?: readonly string[];
}

/** Grades any reading of a file, also one that a person corrected, by what it leaves out and how it fits the picture. */
export function gradeOf({ parsed, reading, described, groups = groupsOf(parsed.tree), doubts = [] }: Graded): Grade {
  const { frames, unplaced } = readFrames(parsed, reading, described);
  const { records } = frameRecords(parsed, reading, described);
  const reasons = [...doubts];
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  const others = unplaced.filter(({ isPlaceless }) => isPlaceless);
  // A head among the records that says nothing of a place is no frame that is missing.
  const heads = others.length <= Math.max(1, frames.length * 0.15) ? new Set(others) : new Set();
  const own = unplaced.filter((each) => !heads.has(each) && each.on === undefined);
  const cells = reading.fields.index !== undefined || reading.fields.column !== undefined;
  if (own.length > 0 && own.length > frames.length * 0.02)
    reasons.push(
      t("{own} of {frames} records give no rectangle inside the picture", { own: own.length, frames: frames.length + own.length }),
    );
  const evidence = evidenceOf(
    frames.slice(0, MANY).map(({ rect }) => rect),
    described.coverage,
  );
  if (isSeen(described.coverage) && evidence) {
    if (evidence.filled < 0.9 && !cells)
      reasons.push(t("nothing is drawn in {percent} of the rectangles", { percent: percent(1 - evidence.filled) }));
    if (evidence.explained < 0.5 && frames.length <= MANY)
      reasons.push(t("only {percent} of what is drawn lies in the rectangles", { percent: percent(evidence.explained) }));
    if (evidence.shared > 0.25) reasons.push(t("the rectangles overlap a lot"));
    if (evidence.cut > 0.15 && !isEven(frames))
      reasons.push(t("the edges of the rectangles cut through what is drawn ({percent} of them)", { percent: percent(evidence.cut) }));
  }
  const unused = unusedOf(groups, records, reading, described, evidence);
  const like = unused.find(({ why }) => why === LIKE_RECTANGLES);
  if (like) reasons.push(t("{count} records at {where} may be rectangles as well", { count: like.count, where: like.where }));
  return { grade: reasons.length === 0 ? "sure" : "doubtful", reasons, unused };
}

/** The number of frames compared with the picture. */
const MANY = 200;

/** Adjacent rectangles of one size may well cut through drawings: seamless tiles do. */
function isEven(frames: readonly ReadFrame[]): boolean {
  return new Set(frames.map(({ rect }) => `${rect.w} ${rect.h}`)).size === 1;
}

/** Other possible meanings of the numbers, in words for people. */
export function rivalInWords(reading: Reading, rival: NonNullable<FoundRectangles["rival"]>): string {
  if (rival.yAs !== reading.yAs)
    return rival.yAs ? t("y may be counted up: the picture fits as well") : t("y may be counted down: the picture fits as well");
  const fields = Object.entries(rival.fields).map(([field, path]) => t("{field} at {path}", { field, path }));
  return t("read as {fields} the picture fits as well", { fields: fields.join(", ") });
}

const LIKE_RECTANGLES = "They may be rectangles of frames as well.";

function unusedOf(
  groups: readonly RecordGroup[],
  records: readonly MetadataRecord[],
  reading: Reading,
  described: Described,
  evidence: Evidence | null,
): Unused[] {
  const used = new Set(Object.values(reading.fields));
  for (const { x, y, w, h } of reading.marks ?? []) for (const path of [x, y, w, h]) if (path !== undefined) used.add(path);
  const { w, h, x, y } = reading.fields;
  const repeats = (path: string) =>
    [w, h, x, y].some((known) => known !== undefined && records.every(({ fields }) => fields.get(path) === fields.get(known)));
  const unused: Unused[] = [];
  for (const path of commonFields(records)) {
    if (used.has(path) || repeats(path)) continue;
    const values = new Set(records.map((record) => record.fields.get(path)));
    const numbers = records.filter((record) => typeof record.fields.get(path) === "number").length;
    if (numbers === 0) continue;
    unused.push({
      where: reading.frames === "" ? path : `${reading.frames}.${path}`,
      why: values.size === 1 ? t("It is the same in all records.") : t("Its meaning is unknown."),
      count: numbers,
    });
  }
  const frames = new Set(records.map(({ path }) => path));
  const told = [reading.frames, ...(reading.clips ? [reading.clips.records] : [])];
  const seen = new Set<string>();
  for (const { pattern, records: others, keyed } of groups) {
    if (told.some((each) => pattern === each || pattern.startsWith(`${each}.`) || each.startsWith(`${pattern}.`) || each === CELLS))
      continue;
    if (others.some(({ path }) => frames.has(path) || frames.has(path.slice(0, path.lastIndexOf("."))))) continue;
    // The same records under another pattern.
    const key = others[0]?.path ?? "";
    if (seen.has(key)) continue;
    seen.add(key);
    const like = others.length >= records.length * 0.5 ? findRectangles({ pattern, keyed, records: others }, described.coverage) : null;
    const rivals =
      like?.told === true &&
      evidence !== null &&
      like.evidence.placed >= 2 &&
      like.evidence.cut <= evidence.cut + 0.05 &&
      like.evidence.filled >= 0.9;
    unused.push({ where: pattern, why: rivals ? LIKE_RECTANGLES : t("They are not read."), count: others.length });
  }
  return unused;
}
