/** Writes metadata in the shape of an example: learns how a file of any make expresses things, and expresses other content the same way. */
import type { Atlas } from "../atlas";
import { type NamedFile, utf8 } from "../codec";
import { type Described, recognise, unseen } from "../metadata";
import type { Example, Packing } from "../model";
import { problem } from "../notation";
import { t } from "../words";
import { notesOf, type Told, toldOf } from "./describe-shape";
import { KEEP } from "./further";
import { learnShape } from "./learn";
import { locate } from "./locate";
import { proveShape } from "./prove";
import { ASSIGNABLE } from "./quantities";
import { needsPage, type Shape, type Traits } from "./shape";
import { sheetsOf } from "./sheets";
import { writeInShape } from "./write";

export type { Told, ToldLine } from "./describe-shape";
export type { Shape, Traits } from "./shape";

/** Longest example kept in a project, characters. */
const LONGEST_EXAMPLE = 1_000_000;

/**
 * Learns an example from its structure. `seen` is its picture, if available: it identifies rectangles more reliably. Throws `bad-metadata`
 * with what was looked for, or why nothing can be written in this shape. `where` names the file.
 */
export function learnExample(text: string, where: string, seen: Described | null): { example: Example; told: Told } {
  if (text.length > LONGEST_EXAMPLE)
    throw problem(
      where,
      t("It is longer than a million characters."),
      t("Give one of a smaller sheet: a few records show the structure as well."),
    );
  const { reading } = recognise(text, seen ?? unseen(""), where);
  const page = seen && needsPage(reading) ? { page: { w: seen.coverage.width, h: seen.coverage.height } } : {};
  const example: Example = { name: reading.name, file: reading.name, text, reading, ...page };
  return { example, told: toldOf(shapeOf(example)) };
}

/** The packing options that a shape can express. */
export function packingIn({ trims, turns, pages, clips }: Traits, packing: Packing): Packing {
  const together = packing.together === "nothing" && pages !== "by-frame" && clips !== "none" ? "clips" : packing.together;
  return { ...packing, trim: packing.trim && trims, turn: packing.turn && turns, shareMirrored: false, together };
}

/** Shapes of examples that are about: an example is never changed, only replaced. */
const shapes = new WeakMap<Example, Shape>();

/** Throws as `learnExample` does. */
export function shapeOf(example: Example): Shape {
  const known = shapes.get(example);
  if (known) return known;
  const { file, text, reading, assigned, page } = example;
  const shape = learnShape(locate(text, file, reading.container), reading, file, { assigned, page });
  shapes.set(example, shape);
  return shape;
}

/** What can be said of an example's fields by hand: the names under which it is kept, each with words for people. */
export const MEANINGS_OF_FIELDS: readonly (readonly [means: string, words: string])[] = [
  [KEEP, "stays as the example has it"],
  ...Object.entries(ASSIGNABLE).map(([means, { label }]) => [means, label] as const),
];

export function toldOfExample(example: Example): Told {
  return toldOf(shapeOf(example));
}

/**
 * Writes an atlas in the shape of an example, as one file or, if the shape has one page per file, as one per page. `stem` begins their
 * names. Each is read back; throws `proof-failed` if one differs from what was meant.
 */
export function filesInShape(shape: Shape, atlas: Atlas, stem: string): { files: NamedFile[]; notes: string[] } {
  const ending = /\.[^.]+$/.exec(shape.file)?.[0] ?? ".txt";
  const sheets = sheetsOf(atlas, shape.traits);
  const files = sheets.map((sheet, k): NamedFile => {
    const path = sheets.length === 1 ? `${stem}${ending}` : `${stem}-${k}${ending}`;
    const text = writeInShape(shape, sheet);
    proveShape(text, shape, sheet, path);
    return { path, bytes: utf8(text) };
  });
  return { files, notes: notesOf(shape, atlas, sheets, files[0]?.path ?? stem) };
}
