/**
 * Writes frames as PNG files into a folder. Large sets are cropped, encoded and written on all cores: each thread shares the sheet's
 * memory and takes every n-th frame.
 */
import { availableParallelism } from "node:os";
import { Worker } from "node:worker_threads";
import { drawnPixels } from "@caravan/core/art";
import type { NamedFile } from "@caravan/core/codec";
import type { Frame } from "@caravan/core/model";
import type { Pixels } from "@caravan/core/raster";
import { type WrittenSet, writeSet, writeStaged } from "./delivered-set";
import { framesCodec } from "./png";
import type { StagedFile, Staging } from "./staged-file";

/** A frame's rectangle on the sheet, and the path of its file. */
export type FrameFile = Pick<Frame, "rect" | "size" | "inset" | "turned"> & { readonly path: string };

/** What a thread gets. */
export interface FrameTask {
  readonly shared: SharedArrayBuffer;
  readonly width: number;
  readonly height: number;
  readonly frames: readonly FrameFile[];
  /** The first frame that is this thread's, and how many threads there are. */
  readonly from: number;
  readonly step: number;
  readonly staging: Staging;
}

/** What it answers: the files in the order of its frames, or the error of the system, whose code a thread would lose. */
export type FrameAnswer = { readonly files: readonly StagedFile[] } | { readonly failed: string; readonly code: string };

/** The number of frames that is worth starting a thread, which takes as long as some hundred files. */
const WORTH_A_THREAD = 200;
const MOST_THREADS = 16;

/** Writes the frames below `folder` as a set; see `writeSet`. */
export async function writeFrames(
  folder: string,
  pixels: Pixels,
  frames: readonly FrameFile[],
  by: string,
  replace: boolean,
): Promise<WrittenSet> {
  const threads = Math.min(availableParallelism(), MOST_THREADS, Math.floor(frames.length / WORTH_A_THREAD));
  if (threads < 2) return writeSet(folder, frameFiles(pixels, frames), by, replace);
  return writeStaged(folder, (staging) => stagedInThreads(pixels, frames, staging, threads), by, replace);
}

export function* frameFiles(pixels: Pixels, frames: readonly FrameFile[]): Generator<NamedFile> {
  for (const frame of frames) yield frameFile(pixels, frame);
}

export function frameFile(pixels: Pixels, frame: FrameFile): NamedFile {
  return { path: frame.path, bytes: framesCodec().encode(drawnPixels(pixels, frame as FrameFile & Frame)) };
}

async function stagedInThreads(
  { width, height, bytes }: Pixels,
  frames: readonly FrameFile[],
  staging: Staging,
  threads: number,
): Promise<StagedFile[]> {
  const shared = inSharedMemory(bytes);
  const answers = await Promise.all(
    Array.from({ length: threads }, (_, from) => inThread({ shared, width, height, frames, from, step: threads, staging })),
  );
  return frames.map((_, k) => answers[k % threads]?.[Math.floor(k / threads)] as StagedFile);
}

/** Decoded sheets are there already; those with a cleared background are not. */
function inSharedMemory(bytes: Uint8Array): SharedArrayBuffer {
  if (bytes.buffer instanceof SharedArrayBuffer && bytes.length === bytes.buffer.byteLength) return bytes.buffer;
  const shared = new SharedArrayBuffer(bytes.length);
  new Uint8Array(shared).set(bytes);
  return shared;
}

function inThread(task: FrameTask): Promise<readonly StagedFile[]> {
  return new Promise((resolve, reject) => {
    const thread = new Worker(new URL("./frames.mjs", import.meta.url), { workerData: task });
    thread.on("message", (answer: FrameAnswer) => {
      if ("files" in answer) resolve(answer.files);
      else reject(Object.assign(new Error(answer.failed), { code: answer.code }));
    });
    thread.on("error", reject);
    thread.on("exit", (status) => reject(new Error(`A thread exited with ${status} before it finished.`)));
  });
}
