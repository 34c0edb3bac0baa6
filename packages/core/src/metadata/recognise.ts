/**
 * Recognises a metadata file of any make by its structure: its notation, the records that describe a picture's frames, and the meaning of
 * their fields. It knows no makers.
 */
import type { CaravanError, Reading, Size } from "../model";
import { inNoNotation, notationsOf, type ParsedMetadata, problem } from "../notation";
import { t } from "../words";
import { columnsAround, sizesAround, spacesAround } from "./assignments";
import { CELLS, cellRecords, probeCell } from "./cells";
import { recogniseClips } from "./clips";
import { clipsAround } from "./clips-around";
import { type Described, isSeen } from "./described";
import { evidenceOf, fitOf } from "./evidence";
import { otherFields } from "./fields";
import { type Grade, gradeOf, rivalInWords } from "./grade";
import { groupsOf, type MetadataRecord, type RecordGroup } from "./groups";
import { commonFields, nameField } from "./name-field";
import { readFrames, turnOf } from "./read";
import { readingName } from "./reading-name";
import { gridFor, rectangleOf } from "./rectangle-of";
import { type FoundRectangles, findRectangles } from "./rectangles";
import { numberAt, valueAt } from "./values";
import { says, unitOfTimes } from "./words";

export interface Recognised {
  readonly parsed: ParsedMetadata;
  readonly reading: Reading;
  readonly grade: Grade;
}

interface Candidate {
  readonly parsed: ParsedMetadata;
  readonly groups: readonly RecordGroup[];
  readonly group: RecordGroup;
  readonly found: FoundRectangles;
  readonly score: number;
  /** Whether its records have names, as far as one can see. */
  readonly named: boolean;
}

/** From here on a notation is not doubted, and no further one is tried. */
const CONVINCING = 4.5;

/** The plainer notation is believed unless another says clearly more. */
const MUCH_BETTER = 0.4;

/**
 * The reading that fits best. Throws `bad-metadata` if none does, with what was tried and what came closest. `where` names the file.
 */
export function recognise(text: string, described: Described, where: string): Recognised {
  let best: Candidate | null = null;
  let first: { parsed: ParsedMetadata; groups: readonly RecordGroup[] } | null = null;
  for (const parsed of notationsOf(text, where)) {
    const groups = groupsOf(parsed.tree);
    if (first === null || groups.length > 0) first = first && first.groups.length > 0 ? first : { parsed, groups };
    const candidate = bestGroup(parsed, groups, described);
    if (candidate && (!best || candidate.score > best.score + MUCH_BETTER)) best = candidate;
    if (best?.named && best.score - 0.25 * Math.log2(best.found.placed) >= CONVINCING) break;
  }
  if (!best) {
    if (first === null) throw inNoNotation(text, where);
    throw nothingFits(first.groups, first.parsed, described, where);
  }
  return read(best, described, where);
}

function bestGroup(parsed: ParsedMetadata, groups: readonly RecordGroup[], described: Described): Candidate | null {
  let best: Candidate | null = null;
  const consider = (group: RecordGroup, bonus: number) => {
    const found = findRectangles(group, described.coverage);
    if (!found || isChance(found, described)) return;
    const depth = group.pattern.split(".").filter((part) => part === "*").length;
    const named = hasNames(group, found);
    const score = found.fit + 0.25 * Math.log2(found.placed) - 0.1 * depth + (named ? 0.6 : 0) + bonus;
    if (!best || score > best.score) best = { parsed, groups, group, found, score, named };
  };
  for (const group of groups) consider(group, 0);
  // Cells that the file speaks of by number only.
  if (isSeen(described.coverage)) {
    const cells = toldCells(parsed, described);
    if (cells) consider(cells, -0.4);
  }
  return best;
}

/** Whether unnamed numbers probably match the drawing by chance: any two are a cell of some grid, any four some rectangle. */
function isChance({ told, placed, evidence }: FoundRectangles, described: Described): boolean {
  if (told || !isSeen(described.coverage)) return false;
  return placed < 3 ? evidence.explained < 0.5 || evidence.cut > 0.08 : evidence.explained < 0.05;
}

/** Whether records have names; those with brackets and quotes in them are bits of a notation that was not understood. */
function hasNames(group: RecordGroup, found: FoundRectangles): boolean {
  const path = nameField(group.records, found.reading.fields, group.keyed);
  if (path === null) return false;
  const names = group.records.slice(0, 40).map((record) => String(valueAt(record, path) ?? ""));
  return names.filter((name) => /["'{};]|\($|^\(|[[(][^\])]*$/.test(name)).length < names.length / 4;
}

/** The cells of the picture, by the sizes that the file says anywhere; null if it says none that fits. */
function toldCells(parsed: ParsedMetadata, described: Described): RecordGroup | null {
  const probe = probeCell(parsed);
  for (const [cellW, cellH] of sizesAround([probe])) {
    const columns = columnsAround([probe]);
    const fields = { index: "index", cellW, cellH, ...spacesAround([probe]), ...(columns ? { columns } : {}) };
    const cells = cellRecords(parsed, fields, described.coverage);
    if (cells.records.length > 1) return cells;
  }
  return null;
}

function read({ parsed, groups, group, found }: Candidate, described: Described, where: string): Recognised {
  const { records } = group;
  const grid = gridFor(records, found.reading, described.coverage);
  const rects = records.map((record) => rectangleOf(record, found.reading, grid, described.coverage));
  const up = found.reading.yAs !== undefined;
  const bare: Reading = {
    name: readingName(where),
    container: parsed.container,
    frames: group.pattern,
    ...found.reading,
    turnedAs: "upright",
    originAs: "pixels",
    originUp: false,
    timeAs: "ms",
    clips: null,
  };
  const sizesOf = (turned: string | undefined) => {
    const sizes = rects.map((rect) => (rect ? { w: rect.w, h: rect.h } : null));
    if (turned === undefined) return sizes;
    const fields = { ...found.reading.fields, turned };
    if (turnedAs(parsed, { ...bare, fields }, described) === "upright") return sizes;
    return sizes.map((size, k) => (size && turnOf(records[k] as MetadataRecord, { fields }) ? { w: size.h, h: size.w } : size));
  };
  const rest = otherFields(group, found.reading.fields, sizesOf, up);
  const timed = rest.fields.time;
  const plain: Reading = {
    ...bare,
    fields: { ...found.reading.fields, ...rest.fields },
    ...(rest.insetAs ? { insetAs: rest.insetAs } : {}),
    ...(rest.marks ? { marks: rest.marks } : {}),
    originAs: originUnit(records, rest.fields),
    timeAs: timed === undefined ? "ms" : timeUnit(records, timed),
  };
  const origin = countsUp(records, plain, up, sizesOf(rest.fields.turned));
  const reading: Reading = { ...plain, turnedAs: turnedAs(parsed, plain, described), originUp: origin.up };
  const { frames } = readFrames(parsed, reading, described);
  const clips = recogniseClips(groups, reading, frames, records);
  const whole: Reading =
    clips || rest.fields.clip || group.pattern === CELLS ? { ...reading, clips } : { ...reading, ...clipsAround(group, reading) };
  const doubts = [
    ...rest.doubts,
    ...(origin.doubt ? [origin.doubt] : []),
    ...(found.rival ? [rivalInWords(whole, found.rival)] : []),
    ...(whole.fields.name === undefined && ["code", "columns", "lines"].includes(parsed.container)
      ? [t("no names of frames were found")]
      : []),
    ...(!found.told && frames.length < 3 ? [t("there are few records, and their names do not say what they mean")] : []),
  ];
  return { parsed, reading: whole, grade: gradeOf({ parsed, reading: whole, described, groups, doubts }) };
}

function originUnit(records: readonly MetadataRecord[], fields: Reading["fields"]): Reading["originAs"] {
  const values = records
    .flatMap((record) => [numberAt(record, fields.originX), numberAt(record, fields.originY)])
    .filter((each) => each !== null);
  const percent = records.some((record) => /%\s*$/.test(String(fields.originX === undefined ? "" : valueAt(record, fields.originX))));
  const share =
    values.length > 0 &&
    values.every((each) => each >= -0.5 && each <= 1.5) &&
    values.some((each) => !Number.isInteger(each) || each === 1);
  return percent || share ? "share" : "pixels";
}

/** Figures stand with their feet on the origin: if origins would be near the top when counted down, they count up. */
function countsUp(
  records: readonly MetadataRecord[],
  { fields, originAs }: Reading,
  up: boolean,
  sizes: readonly (Size | null)[],
): { up: boolean; doubt: string | null } {
  if (fields.originY === undefined || says(fields.originY, ["down", "top"])) return { up: false, doubt: null };
  if (says(fields.originY, ["up"])) return { up: true, doubt: null };
  const shares = records.flatMap((record, k) => {
    const y = numberAt(record, fields.originY);
    const h = numberAt(record, fields.fullH) ?? sizes[k]?.h ?? 0;
    return y === null || h <= 0 ? [] : [originAs === "share" ? y : y / h];
  });
  if (shares.length === 0) return { up, doubt: null };
  if (shares.every((share) => share >= -0.25 && share < 0.3)) return { up: true, doubt: null };
  if (shares.every((share) => share > 0.7 && share <= 1.25)) return { up: false, doubt: null };
  const middle = shares.some((share) => Math.abs(share - 0.5) > 0.02);
  return {
    up,
    doubt: middle
      ? up
        ? t("the origin's y ({originY}) may be counted down", { originY: fields.originY })
        : t("the origin's y ({originY}) may be counted up", { originY: fields.originY })
      : null,
  };
}

function timeUnit(records: readonly MetadataRecord[], path: string): Reading["timeAs"] {
  return unitOfTimes(
    records.map((record) => numberAt(record, path)).filter((each) => each !== null),
    path,
  );
}

/** Whether the width and height of turned frames are as stored or upright: what describes the picture better. */
function turnedAs(parsed: ParsedMetadata, reading: Reading, described: Described): Reading["turnedAs"] {
  if (reading.fields.turned === undefined) return "upright";
  const fits = (as: Reading["turnedAs"]) => {
    const { frames, unplaced } = readFrames(parsed, { ...reading, turnedAs: as }, described);
    const turned = frames.filter((frame) => frame.turned);
    // Turned ones among their neighbours; all others are the same in both.
    const rects = [...turned, ...frames.filter((frame) => !frame.turned)].slice(0, MOST_TURNED).map(({ rect }) => rect);
    const evidence = evidenceOf(rects, described.coverage);
    if (!evidence) return Number.NEGATIVE_INFINITY;
    return fitOf(evidence, rects.length, rects.length, 1) - unplaced.length;
  };
  return fits("stored") > fits("upright") + 1e-9 ? "stored" : "upright";
}

/** The number of frames compared with the picture for this. */
const MOST_TURNED = 300;

/** Says what was looked for and how near the file came. */
function nothingFits(groups: readonly RecordGroup[], parsed: ParsedMetadata, described: Described, where: string): CaravanError {
  const { width, height } = described.coverage;
  const held = isSeen(described.coverage);
  const wild = (group: RecordGroup) => group.pattern.split("*").length;
  const closest = groups.toSorted((a, b) => b.records.length - a.records.length || wild(a) - wild(b))[0];
  const fields = closest ? commonFields(closest.records).slice(0, 6).join(", ") : "";
  const seen = closest
    ? fields
      ? held
        ? t(
            "The records that came closest are {records} at {pattern} with the fields {fields}, but they give no rectangles inside the {width} × {height} px picture.",
            { records: closest.records.length, pattern: closest.pattern, fields, width, height },
          )
        : t("The records that came closest are {records} at {pattern} with the fields {fields}, but they give no rectangles.", {
            records: closest.records.length,
            pattern: closest.pattern,
            fields,
          })
      : held
        ? t(
            "The records that came closest are {records} at {pattern}, but they give no rectangles inside the {width} × {height} px picture.",
            { records: closest.records.length, pattern: closest.pattern, width, height },
          )
        : t("The records that came closest are {records} at {pattern}, but they give no rectangles.", {
            records: closest.records.length,
            pattern: closest.pattern,
          })
    : t("It contains no records.");
  return problem(
    where,
    t(
      "Read as {container}, looked for x, y, width and height; for left, top, right and bottom; for lists of four numbers; and for columns and rows. {seen}",
      { container: parsed.container, seen },
    ),
    held
      ? t("Check that it belongs to this picture, or cut the picture another way.")
      : t("Give the file that lists where each frame lies on its sheet."),
  );
}
