/**
 * Writes frames as PNG files into a folder. Large sets are cropped, encoded and written on all cores: each thread, the command's own among
 * them, shares the sheet's memory and takes every n-th frame.
 */
import { availableParallelism } from "node:os";
import { Worker } from "node:worker_threads";
import { drawnPixels } from "@caravan/core/art";
import type { NamedFile } from "@caravan/core/codec";
import type { Frame } from "@caravan/core/model";
import type { Pixels } from "@caravan/core/raster";
import { type WrittenSet, writeSet, writeStaged } from "./delivered-set";
import { framesCodec } from "./png";
import { type StagedFile, type Staging, stageFile } from "./staged-file";

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
/** px: a sheet that takes longer to decode than a thread to start, and may hold hundreds of frames. */
const WORTH_STARTING_EARLY = 4_000_000;
const FRAMES_THREAD = new URL("./frames.mjs", import.meta.url);

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

function frameFile(pixels: Pixels, frame: FrameFile): NamedFile {
  return { path: frame.path, bytes: framesCodec().encode(drawnPixels(pixels, frame as FrameFile & Frame)) };
}

async function stagedInThreads(
  { width, height, bytes }: Pixels,
  frames: readonly FrameFile[],
  staging: Staging,
  threads: number,
): Promise<StagedFile[]> {
  const shared = inSharedMemory(bytes);
  const tasks = Array.from({ length: threads }, (_, from) => ({ shared, width, height, frames, from, step: threads, staging }));
  // This thread has nothing else to do, and has started already.
  const [own, ...others] = tasks as [FrameTask, ...FrameTask[]];
  const asked = others.map(inThread);
  // All have ended before a failure is reported: who gives up removes the folder that they write into.
  const answers = await Promise.allSettled([attempted(own), ...asked]);
  const shares = answers.map((answer) => {
    if (answer.status === "rejected") throw answer.reason;
    return answer.value;
  });
  return frames.map((_, k) => shares[k % threads]?.[Math.floor(k / threads)] as StagedFile);
}

async function attempted(task: FrameTask): Promise<readonly StagedFile[]> {
  return stagedShare(task);
}

/** Crops, encodes and stages the frames of one thread. Throws what the system throws. */
export function stagedShare({ shared, width, height, frames, from, step, staging }: FrameTask): StagedFile[] {
  const pixels = { width, height, bytes: new Uint8Array(shared) };
  const files: StagedFile[] = [];
  // In a folder of its own: a file system creates the files of one folder one after the other, whichever thread asks.
  for (let k = from; k < frames.length; k += step)
    files.push(stageFile(staging, frameFile(pixels, frames[k] as FrameFile), `${from}/${k}`));
  return files;
}

/** Decoded sheets are there already; those with a cleared background are not. */
function inSharedMemory(bytes: Uint8Array): SharedArrayBuffer {
  if (bytes.buffer instanceof SharedArrayBuffer && bytes.length === bytes.buffer.byteLength) return bytes.buffer;
  const shared = new SharedArrayBuffer(bytes.length);
  new Uint8Array(shared).set(bytes);
  return shared;
}

/** Threads that were started and have no task yet. */
const waiting: Worker[] = [];

/**
 * Starts as many threads as will be worth it for a sheet of `pixels` pixels that is about to be decoded, so that they have started when it
 * is. They do not keep the command from ending.
 */
export function startThreads(pixels: number): void {
  if (pixels < WORTH_STARTING_EARLY) return;
  while (waiting.length < Math.min(availableParallelism(), MOST_THREADS) - 1) {
    const thread = new Worker(FRAMES_THREAD);
    thread.unref();
    waiting.push(thread);
    // One that cannot start is not missed: another is started when it is needed, and then its error is reported.
    const drop = () => {
      if (waiting.includes(thread)) waiting.splice(waiting.indexOf(thread), 1);
    };
    thread.on("error", drop);
    thread.on("exit", drop);
  }
}

function inThread(task: FrameTask): Promise<readonly StagedFile[]> {
  return new Promise((resolve, reject) => {
    const thread = waiting.pop() ?? new Worker(FRAMES_THREAD);
    thread.ref();
    thread.on("message", (answer: FrameAnswer) => {
      if ("files" in answer) resolve(answer.files);
      else reject(Object.assign(new Error(answer.failed), { code: answer.code }));
      void thread.terminate();
    });
    thread.on("error", reject);
    thread.on("exit", (status) => reject(new Error(`A thread exited with ${status} before it finished.`)));
    thread.postMessage(task);
  });
}
