/**
 * All that workers do. Both sides import this table; each job is a pure core function, tested without a worker.
 *
 * Pictures go over as Blobs, which are handed on without being copied; typed arrays and bitmaps in answers are given away.
 */
import type { NamedFile } from "@caravan/core/codec";
import type { DeliveredPage, Proof } from "@caravan/core/deliver";
import type { Delivery, ErrorCode, Project, SourceId } from "@caravan/core/model";
import type { Coverage, PictureFacts } from "@caravan/core/raster";

export interface ReadPicture {
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
  readonly coverage: Coverage;
  readonly facts: PictureFacts;
  /** For looking at only; exact pixels stay in the workers. */
  readonly bitmap: ImageBitmap;
  /** A large picture reduced, for looking at it whole: reducing it anew at each drawing would hold up the screen. */
  readonly overview: Overview | null;
}

export interface Overview {
  readonly bitmap: ImageBitmap;
  /** How many times smaller it is. */
  readonly reduction: number;
}

export interface Delivered {
  readonly files: readonly NamedFile[];
  readonly pages: readonly DeliveredPage[];
  readonly proof: Proof;
}

export type Jobs = {
  /** Decodes a picture file to check it and learn about it. */
  readPicture: { ask: { name: string; blob: Blob }; answer: ReadPicture };
  /** Packs, draws, encodes and proves a delivery. */
  deliver: { ask: { project: Project; delivery: Delivery; pictures: readonly (readonly [SourceId, Blob])[] }; answer: Delivered };
  /** The files as one ZIP. */
  zip: { ask: { files: readonly NamedFile[] }; answer: Uint8Array };
  writeBundle: { ask: { project: Project; pictures: readonly (readonly [sha256: string, Blob])[] }; answer: Uint8Array };
  readBundle: {
    ask: { name: string; blob: Blob };
    answer: { project: Project; pictures: readonly (readonly [sha256: string, Uint8Array])[] };
  };
};

export type JobName = keyof Jobs;

/** An answer, or an error whose code and place survive the crossing. */
export type Outcome<Answer> =
  | { readonly ok: true; readonly answer: Answer }
  | { readonly ok: false; readonly problem: { code: ErrorCode; where: string; what: string; remedy: string } }
  | { readonly ok: false; readonly fault: string };

/** Told now and then during a long job, from 0 to 1. */
export type OnProgress = (done: number) => void;

/** What a worker offers over Comlink. */
export interface JobRunner {
  run<Name extends JobName>(name: Name, ask: Jobs[Name]["ask"], onProgress?: OnProgress): Promise<Outcome<Jobs[Name]["answer"]>>;
}
