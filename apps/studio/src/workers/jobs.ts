/**
 * Table of all worker jobs, imported by both sides. Each job is a pure core function, tested without a worker.
 *
 * Pictures cross as Blobs, which are passed without copying; typed arrays and bitmaps in answers are transferred.
 */
import type { Look } from "@caravan/core/art";
import type { FrameFinding, Repeats } from "@caravan/core/check";
import type { NamedFile, ReadText } from "@caravan/core/codec";
import type { CutPieces, FindingCut, GridSuggestion, OutlineSuggestion } from "@caravan/core/cut";
import type { DeliveredPage, Proof } from "@caravan/core/deliver";
import type { Told } from "@caravan/core/example";
import type { ArtOf, LayerOfFile } from "@caravan/core/intake";
import type { FrameOutlines } from "@caravan/core/marks";
import type { Understood } from "@caravan/core/metadata";
import type {
  Clearing,
  Colour,
  Delivery,
  ErrorCode,
  Example,
  Frame,
  FrameRef,
  Project,
  Reading,
  Rect,
  Size,
  Source,
  SourceId,
} from "@caravan/core/model";
import type { Recolouring, UsedColour } from "@caravan/core/palette";
import type { Coverage, Drawing, Ground, PictureFacts } from "@caravan/core/raster";
import type { NearPair, PaletteUse, Parted } from "@caravan/core/tiles";

export interface ReadPicture extends PictureView {
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
  readonly coverage: Coverage;
  readonly facts: PictureFacts;
  /** An opaque ground that is there to clear; null if there is none. */
  readonly ground: Ground | null;
  /** The colour of blocks that its figures stand in front of; null if there are none. */
  readonly blocks: Colour | null;
  /** Before recolouring, most used first; null for more than a palette can contain, and for assembled frames. */
  readonly colours: readonly UsedColour[] | null;
}

/** A picture and the PNG that it is stored as. */
export interface StoredPicture {
  readonly picture: ReadPicture;
  /** Null if the file itself is such a PNG. */
  readonly png: Blob | null;
}

export type StoredLayer = StoredPicture & LayerOfFile;

export type ReadArt = ArtOf<StoredPicture> | ({ readonly kind: "text" } & ReadText);

/** What a film holds, known before any of it is decoded. */
export interface FilmFacts {
  readonly width: number;
  readonly height: number;
  /** The start of each frame, in the film's own seconds: frames are requested by these. */
  readonly starts: readonly number[];
  /** When each frame begins, and when the last one ends, in microseconds from the first. */
  readonly times: readonly number[];
}

export interface LearnedExample {
  readonly example: Example;
  readonly told: Told;
}

/** A picture file, how its ground is cleared, and which colours it is turned into. */
export interface LookFile {
  readonly blob: Blob;
  readonly clearing: Clearing | null;
  readonly recolouring?: Recolouring | null;
}

/** What frames would cost a machine of few tiles. */
export interface CountedTiles {
  /** Not clear. */
  readonly tiles: number;
  readonly distinct: number;
  readonly colours: number;
  /** In the order that was asked; what its tiles wear as `inPalettes` has it. */
  readonly perFrame: readonly (PaletteUse & { readonly ref: FrameRef; readonly tiles: number; readonly own: number })[];
}

/** A frame, with its name in the count. */
export interface NamedFrame {
  readonly ref: FrameRef;
  readonly name: string;
}

/** A look, with the picture files that it needs. */
export interface LookFiles {
  readonly look: Look;
  readonly files: ReadonlyMap<string, Blob>;
}

export interface Overview {
  readonly bitmap: ImageBitmap;
  /** How many times smaller it is. */
  readonly reduction: number;
}

/** What a picture is drawn from on the screen; exact pixels stay in the workers. */
export interface PictureView {
  readonly bitmap: ImageBitmap;
  /** A large picture reduced for viewing it whole: reducing it at every drawing would block the screen. */
  readonly overview: Overview | null;
}

export interface Delivered {
  readonly files: readonly NamedFile[];
  readonly pages: readonly DeliveredPage[];
  readonly proof: Proof;
  /** The facts about the result. */
  readonly notes: readonly string[];
  /** Each page for viewing; none if there are many pictures, or animated ones. */
  readonly views: readonly PictureView[];
  /** Opaque grounds of the project's pictures, by hash. */
  readonly grounds: ReadonlyMap<string, Ground>;
}

/**
 * A document, or a part of one, as JSON text for a worker: passing thousands of frames as objects takes the main thread four times as long.
 */
export type TextOf<Value> = string & { readonly of?: Value };

export function asText<Value>(value: Value): TextOf<Value> {
  return JSON.stringify(value);
}

export function fromText<Value>(text: TextOf<Value>): Value {
  return JSON.parse(text) as Value;
}

/** What looks wrong about a source's frames. */
export interface Inspection {
  readonly findings: readonly FrameFinding[];
  readonly repeats: Repeats;
}

/** A viewed picture of a delivery: a page, or a layer of it. */
export interface ShownPage {
  readonly image: string;
  readonly page: DeliveredPage;
  /** Null for the lowest. */
  readonly layer: string | null;
}

/** The pictures of pages, each with its layers after it. */
export function shownPages(pages: readonly DeliveredPage[]): ShownPage[] {
  return pages.flatMap((page) => [
    { image: page.image, page, layer: null },
    ...Object.entries(page.layers ?? {}).map(([layer, image]) => ({ image, page, layer })),
  ]);
}

export type Jobs = {
  /** Decodes a picture file, clears its ground if asked, to check it, learn about it and look at it. */
  readPicture: { ask: LookFile & { readonly name: string }; answer: ReadPicture };
  /** Puts pieces of pictures together on their canvas, or layers over one another. */
  assemble: { ask: LookFiles; answer: ReadPicture };
  /** Reads any file that may be art; a still, an animation, layers, or text that may describe a picture. */
  readArt: { ask: { name: string; blob: Blob }; answer: ReadArt };
  filmFacts: { ask: { name: string; blob: Blob }; answer: FilmFacts };
  /** Decodes the frames of a film that begin at `starts`, each side reduced by `reduction`. */
  filmFrames: { ask: { name: string; blob: Blob; starts: readonly number[]; reduction: number }; answer: readonly StoredPicture[] };
  /** `guessed`: whose letters its names were taken for, in words, if nothing in it says so. */
  unzip: { ask: { name: string; blob: Blob }; answer: { readonly files: readonly NamedFile[]; readonly guessed: string | null } };
  /** Reads a metadata file for a picture: by a fitting known reading, otherwise by its structure, or only by the given one. */
  understand: {
    ask: { text: string; where: string; picture: string; coverage: Coverage; known: readonly Reading[] };
    answer: Understood;
  };
  /** Reads a metadata file by a reading that a person has corrected. */
  readAs: { ask: { text: string; where: string; picture: string; coverage: Coverage; reading: Reading }; answer: Understood };
  /** Learns how a metadata file expresses things, to write others like it; more reliable with its picture. */
  learnExample: { ask: { text: string; where: string; seen: { picture: string; coverage: Coverage } | null }; answer: LearnedExample };
  tellExample: { ask: { example: Example }; answer: Told };
  /** Prints of parts of a picture, for following drawings. */
  drawings: { ask: { of: LookFiles; rects: readonly Rect[] }; answer: readonly (Drawing | null)[] };
  /** The positions of drawings from one picture in another. */
  findDrawings: { ask: { before: LookFiles; after: LookFiles; rects: readonly Rect[] }; answer: readonly (readonly Rect[])[] };
  /** Frames of one picture, mirrored, each as a separate picture, upright and untrimmed. */
  mirrorFrames: { ask: { of: LookFiles; frames: readonly Frame[]; scale: number }; answer: readonly StoredPicture[] };
  findPieces: { ask: { coverage: Coverage; cut: FindingCut; where: string }; answer: TextOf<CutPieces> };
  /** Looks at all frames of a source, pixel by pixel. */
  inspect: { ask: { source: TextOf<Source>; pictures: readonly LookFiles[] }; answer: Inspection };
  /** Deletes those of the pictures that nothing in storage refers to, nor `keep`. */
  picturesOfNobody: { ask: object; answer: string[] };
  sweepPictures: { ask: { hashes: readonly string[]; keep: readonly string[] }; answer: number };
  suggestGrids: { ask: { coverage: Coverage; whole?: Coverage }; answer: readonly GridSuggestion[] };
  suggestOutlines: { ask: { coverage: Coverage }; answer: OutlineSuggestion | null };
  /** Grids and outlines that a sheet may be cut by. */
  suggestCuts: {
    ask: { coverage: Coverage };
    answer: { readonly grids: readonly GridSuggestion[]; readonly outlines: OutlineSuggestion | null };
  };
  /** Counts the distinct tiles, colours and palettes of frames. */
  countTiles: {
    ask: {
      project: TextOf<Project>;
      frames: readonly NamedFrame[];
      pictures: ReadonlyMap<string, Blob>;
      tile: Size;
      flips: boolean;
    };
    answer: CountedTiles;
  };
  /** Traces the outlines of frames. */
  traceOutlines: {
    ask: { project: TextOf<Project>; frames: readonly FrameRef[]; pictures: ReadonlyMap<string, Blob> };
    answer: ReadonlyMap<FrameRef, FrameOutlines>;
  };
  /** Finds frames that nearly agree, to be one piece; pairs by their places in what was asked. */
  nearPieces: {
    ask: { project: TextOf<Project>; frames: readonly FrameRef[]; pictures: ReadonlyMap<string, Blob>; most: number };
    answer: readonly NearPair[];
  };
  /** Splits a source's drawn frames into distinct tiles; the rebuilt frames are compared with the originals. */
  partIntoTiles: { ask: { project: TextOf<Project>; source: SourceId; pictures: ReadonlyMap<string, Blob>; tile: Size }; answer: Parted };
  /** Packs, draws, encodes and proves a delivery. */
  deliver: {
    ask: { project: TextOf<Project>; delivery: Delivery; pictures: readonly (readonly [sha256: string, Blob])[] };
    answer: Delivered;
  };
  /** The files as one ZIP. */
  zip: { ask: { files: readonly NamedFile[] }; answer: Uint8Array };
  /** The text of `caravan.json`. */
  projectFile: { ask: { project: TextOf<Project> }; answer: string };
  writeBundle: {
    ask: {
      project: TextOf<Project>;
      pictures: readonly (readonly [sha256: string, Blob])[];
      texts: readonly (readonly [sha256: string, string])[];
    };
    answer: Uint8Array;
  };
  readBundle: {
    ask: { name: string; blob: Blob };
    answer: {
      project: Project;
      pictures: readonly (readonly [sha256: string, Uint8Array])[];
      texts: readonly (readonly [sha256: string, string])[];
    };
  };
  /** What is left of a damaged project file; null if that is nothing. */
  salvageBundle: { ask: { name: string; blob: Blob }; answer: (Answer<"readBundle"> & { readonly lost: readonly string[] }) | null };
};

export type JobName = keyof Jobs;

/** An answer, or an error whose code and place survive the crossing. */
export type Outcome<Answer> =
  | { readonly ok: true; readonly answer: Answer }
  | { readonly ok: false; readonly problem: { code: ErrorCode; where: string; what: string; remedy: string } }
  | { readonly ok: false; readonly fault: string }
  /** The job's code did not load. */
  | { readonly ok: false; readonly notLoaded: true };

export type Ask<Name extends JobName> = Jobs[Name]["ask"];
export type Answer<Name extends JobName> = Jobs[Name]["answer"];

/** Called occasionally during a long job, from 0 to 1. */
export type OnProgress = (done: number) => void;

/** What a worker offers over Comlink. */
export interface JobRunner {
  /** Answers as soon as the worker's code has loaded. */
  isHere(): boolean;
  run<Name extends JobName>(name: Name, ask: Jobs[Name]["ask"], onProgress?: OnProgress): Promise<Outcome<Jobs[Name]["answer"]>>;
}
