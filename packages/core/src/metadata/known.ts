/** Reads a file with the reading of an earlier one of the same structure, corrections included. */
import type { Reading } from "../model";
import { type ParsedMetadata, parseAs } from "../notation";
import type { Described } from "./described";
import { type Grade, gradeOf } from "./grade";
import { frameRecords, readFrames } from "./read";
import { type Recognised, recognise } from "./recognise";

/** Share of the records that a known reading must place to be trusted. */
const ENOUGH = 0.8;

/**
 * The first of `known` that fits the file, otherwise the reading suggested by its structure. Throws `bad-metadata` like `recognise`. A
 * known reading fits if the file is of its kind and most of its records lie on the picture: somebody has seen it work before.
 */
export function understood(text: string, described: Described, where: string, known: readonly Reading[]): Recognised {
  for (const reading of known) {
    const parsed = parsedAs(reading, text, where);
    if (!parsed) continue;
    const { frames, unplaced } = readFrames(parsed, reading, described);
    if (frames.length > 0 && frames.length >= (frames.length + unplaced.length) * ENOUGH)
      return { parsed, reading, grade: gradeOfKnown(text, parsed, reading, described, where) };
  }
  return recognise(text, described, where);
}

/** Grades a stored reading. One that nobody corrected is as doubtful as when it was suggested: storing it adds no certainty. */
export function gradeOfKnown(text: string, parsed: ParsedMetadata, reading: Reading, described: Described, where: string): Grade {
  try {
    const suggested = recognise(text, described, where);
    if (meaningOf(suggested.reading) === meaningOf(reading)) return suggested.grade;
  } catch {
    // Nothing is suggested for it: a person said how to read it.
  }
  return gradeOf({ parsed, reading, described });
}

/** A reading as text, independent of its name and order. */
function meaningOf({ name: _name, ...meaning }: Reading): string {
  return JSON.stringify(meaning, (_key, value: unknown) =>
    typeof value === "object" && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );
}

function parsedAs({ container }: Reading, text: string, where: string): ParsedMetadata | null {
  try {
    return parseAs(container, text, where);
  } catch {
    // It is of another kind, or damaged; reading it again shows which.
    return null;
  }
}

/** Paths to choose from if a field was misread: those of the records, and of their surroundings. */
export function pathsOf(parsed: ParsedMetadata, reading: Reading, described: Described): string[] {
  const group = frameRecords(parsed, reading, described);
  const own = new Set(group.records.slice(0, 200).flatMap((record) => [...record.fields.keys()]));
  const around = new Set(
    group.records.slice(0, 1).flatMap((record) => record.around.flatMap((outer) => [...outer.keys()].map((path) => `../${path}`))),
  );
  return [...(group.keyed ? ["$key"] : []), ...own, ...around];
}
