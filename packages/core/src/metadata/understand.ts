/** Reads everything that a metadata file says about a picture, and how sure that is. */
import type { Reading } from "../model";
import { type ParsedMetadata, parseAs } from "../notation";
import type { Described } from "./described";
import type { Grade } from "./grade";
import { gradeOfKnown, pathsOf, understood } from "./known";
import { layersIn, type ToldLayers } from "./listed-layers";
import { type ReadClip, type ReadFrame, readFrames, type Unplaced } from "./read";
import { readClips } from "./read-clips";

/** What a metadata file says of a picture, and how that was found out. */
export interface Understood {
  readonly reading: Reading;
  /** How sure that is, and why not. */
  readonly grade: Grade;
  readonly frames: readonly ReadFrame[];
  readonly unplaced: readonly Unplaced[];
  readonly clips: readonly ReadClip[];
  /** The layers of the picture in this file, or that this is a layer of another. */
  readonly told: ToldLayers;
  /** Paths that the records have, for correcting. */
  readonly paths: readonly string[];
}

/** Reads a file by the first fitting one of the `known` readings, otherwise by its structure. Throws `bad-metadata`. */
export function understand(text: string, described: Described, where: string, known: readonly Reading[]): Understood {
  const { parsed, reading, grade } = understood(text, described, where, known);
  return readBy(parsed, reading, grade, described);
}

/** Reads a file by the given reading, whatever else would fit. Throws `bad-metadata` if it has another notation. */
export function understandAs(text: string, described: Described, where: string, reading: Reading): Understood {
  const parsed = parseAs(reading.container, text, where);
  return readBy(parsed, reading, gradeOfKnown(text, parsed, reading, described, where), described);
}

function readBy(parsed: ParsedMetadata, reading: Reading, grade: Grade, described: Described): Understood {
  const { frames, unplaced } = readFrames(parsed, reading, described);
  return {
    ...{ reading, grade, frames, unplaced },
    clips: readClips(parsed, reading, frames),
    told: layersIn(parsed.tree, described.picture),
    paths: pathsOf(parsed, reading, described),
  };
}
