/** Thread that crops, encodes and writes its share of a sheet's frames. */
import { parentPort } from "node:worker_threads";
import { whyOf } from "@caravan/core/model";
import { type FrameAnswer, type FrameTask, stagedShare } from "./frame-files";

function answer(task: FrameTask): FrameAnswer {
  try {
    return { files: stagedShare(task) };
  } catch (error) {
    return { failed: whyOf(error), code: (error as { code?: string }).code ?? "" };
  }
}

parentPort?.once("message", (task: FrameTask) => parentPort?.postMessage(answer(task)));
