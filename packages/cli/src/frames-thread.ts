/** Thread that crops, encodes and writes its share of a sheet's frames. */
import { parentPort, workerData } from "node:worker_threads";
import { whyOf } from "@caravan/core/model";
import { type FrameAnswer, type FrameTask, frameFile } from "./frame-files";
import { type StagedFile, stageFile } from "./staged-file";

const { shared, width, height, frames, from, step, staging } = workerData as FrameTask;

function answer(): FrameAnswer {
  try {
    const pixels = { width, height, bytes: new Uint8Array(shared) };
    const files: StagedFile[] = [];
    // In a folder of its own: a file system creates the files of one folder one after the other, whichever thread asks.
    for (const [k, frame] of frames.entries())
      if (k % step === from) files.push(stageFile(staging, frameFile(pixels, frame), `${from}/${k}`));
    return { files };
  } catch (error) {
    return { failed: whyOf(error), code: (error as { code?: string }).code ?? "" };
  }
}

parentPort?.postMessage(answer());
