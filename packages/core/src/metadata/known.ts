/** Reading the next file of a structure that was understood, and perhaps corrected, before. */
import type { Reading } from "../model";
import type { Described } from "./described";
import { groupAt } from "./groups";
import { readFrames } from "./read";
import { recognise } from "./recognise";
import { type ParsedMetadata, parseMetadata } from "./tree";

/** Share of the records that a known reading must place to be trusted. */
const ENOUGH = 0.8;

/**
 * The first of `known` that fits the file, else the reading that its structure suggests. Throws `bad-metadata` as `recognise` does.
 * A known reading fits when the file is of its kind and most of its records lie on the picture.
 */
export function understood(
  text: string,
  described: Described,
  where: string,
  known: readonly Reading[],
): { parsed: ParsedMetadata; reading: Reading } {
  const parsed = parseMetadata(text, where);
  for (const reading of known) {
    if (reading.container !== parsed.container) continue;
    const { frames, unplaced } = readFrames(parsed, reading, described);
    if (frames.length > 0 && frames.length >= (frames.length + unplaced.length) * ENOUGH) return { parsed, reading };
  }
  return recognise(text, described, where);
}

/** Paths that a person may choose from when a field was understood wrongly: those of the records, and of what stands around them. */
export function pathsOf(parsed: ParsedMetadata, { frames, fields }: Reading): string[] {
  const group = groupAt(parsed, frames, Object.values(fields));
  const own = new Set(group.records.slice(0, 200).flatMap((record) => [...record.fields.keys()]));
  const around = new Set(
    group.records.slice(0, 1).flatMap((record) => record.around.flatMap((outer) => [...outer.keys()].map((path) => `../${path}`))),
  );
  return [...(group.keyed ? ["$key"] : []), ...own, ...around];
}
