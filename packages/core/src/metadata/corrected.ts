/** Applies a person's statements about fields over what their names and numbers suggest. */
import { type FrameField, MEANINGS, type Meaning, type Reading } from "../model";
import { notationsOf, type ParsedMetadata, problem } from "../notation";
import { t } from "../words";
import { recogniseClips } from "./clips";
import type { Described } from "./described";
import { gradeOf } from "./grade";
import { groupsOf, type RecordGroup } from "./groups";
import { commonFields, nameField } from "./name-field";
import { frameRecords, readFrames } from "./read";
import { readingName } from "./reading-name";
import { type Recognised, recognise } from "./recognise";

export interface Correction {
  /** The field's path inside its record, or with that of the records in front of it. */
  readonly path: string;
  readonly meaning: Meaning;
}

/** Alternative fields with the same meaning: setting one removes the others. */
const INSTEAD: Partial<Record<FrameField, readonly FrameField[]>> = {
  x: ["column", "row", "index"],
  y: ["column", "row", "index"],
  w: ["right", "cellW", "column", "row", "index"],
  h: ["bottom", "cellH", "column", "row", "index"],
  right: ["w", "cellW", "column", "row", "index"],
  bottom: ["h", "cellH", "column", "row", "index"],
  column: ["x", "y", "w", "h", "right", "bottom", "index"],
  row: ["x", "y", "w", "h", "right", "bottom", "index"],
  index: ["x", "y", "w", "h", "right", "bottom", "column", "row"],
};

/** A reading in which some fields mean what a person says. Paths are those inside a record. */
function corrected(reading: Reading, corrections: readonly Correction[]): Reading {
  let next = reading;
  for (const { path, meaning } of corrections) {
    const field = MEANINGS[meaning];
    const gone = new Set<string>(field === null ? [] : (INSTEAD[field] ?? []));
    const kept = Object.entries(next.fields).filter(([own, where]) => !gone.has(own) && where !== path);
    const fields: Reading["fields"] = Object.fromEntries(kept);
    if (field !== null) fields[field] = path;
    next = { ...next, fields };
    if (/^[uv][01]$/.test(meaning)) next = { ...next, rectAs: "share" };
    else if (["x", "y", "w", "h", "left", "top", "right", "bottom"].includes(meaning)) next = { ...next, rectAs: "pixels" };
    if (meaning === "ms" || meaning === "seconds" || meaning === "ticks") next = { ...next, timeAs: meaning };
  }
  return next;
}

/**
 * As `recognise`, with fields that mean what a person says. The records are those that have these fields. Throws `bad-metadata` if none has
 * them, naming those that there are.
 */
export function recogniseAs(text: string, described: Described, where: string, corrections: readonly Correction[]): Recognised {
  if (corrections.length === 0) return recognise(text, described, where);
  const suggested = suggestion(text, described, where);
  const found = suggested && inside(suggested.reading, corrections);
  const base = suggested && found && has(frameRecords(suggested.parsed, suggested.reading, described), found) ? suggested : null;
  const { parsed, reading } = base ?? bareReading(text, where, corrections);
  const next = corrected(reading, inside(reading, corrections));
  const { records } = frameRecords(parsed, next, described);
  const { frames } = readFrames(parsed, next, described);
  const clips = next.fields.clip === undefined ? recogniseClips(groupsOf(parsed.tree), next, frames, records) : next.clips;
  const whole = { ...next, clips };
  return { parsed, reading: whole, grade: gradeOf({ parsed, reading: whole, described }) };
}

function suggestion(text: string, described: Described, where: string): Recognised | null {
  try {
    return recognise(text, described, where);
  } catch {
    // What cannot be read automatically may be readable with a person's help; texts without records are refused below.
    return null;
  }
}

/** Corrections with their paths inside the records of a reading. */
function inside({ frames }: Pick<Reading, "frames">, corrections: readonly Correction[]): Correction[] {
  return corrections.map(({ path, meaning }) => ({
    path: frames !== "" && path.startsWith(`${frames}.`) ? path.slice(frames.length + 1) : path,
    meaning,
  }));
}

function has({ records }: RecordGroup, corrections: readonly Correction[]): boolean {
  const paths = new Set(commonFields(records));
  return corrections.every(({ path }) => path.startsWith("../") || path.endsWith("$key") || paths.has(path));
}

function bareReading(text: string, where: string, corrections: readonly Correction[]): { parsed: ParsedMetadata; reading: Reading } {
  let best: { parsed: ParsedMetadata; group: RecordGroup } | null = null;
  const seen = new Set<string>();
  for (const parsed of notationsOf(text, where))
    for (const group of groupsOf(parsed.tree)) {
      for (const path of commonFields(group.records)) if (seen.size < 24) seen.add(path);
      if (!has(group, inside({ frames: group.pattern }, corrections))) continue;
      if (!best || group.records.length > best.group.records.length) best = { parsed, group };
    }
  if (!best)
    throw problem(
      where,
      t("None of its records has the fields {corrections}.", { corrections: corrections.map(({ path }) => path).join(", ") }),
      t("Its fields are: {fields}.", { fields: [...seen].filter((path) => path !== "").join(", ") }),
    );
  const { parsed, group } = best;
  const name = nameField(group.records, {}, group.keyed);
  const reading: Reading = {
    name: readingName(where),
    container: parsed.container,
    frames: group.pattern,
    fields: name === null ? {} : { name },
    turnedAs: "upright",
    originAs: "pixels",
    originUp: false,
    timeAs: "ms",
    clips: null,
  };
  return { parsed, reading };
}
