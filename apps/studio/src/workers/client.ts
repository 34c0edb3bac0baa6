/** Typed access to workers: one call per job, with progress, cancelling, and errors as they were thrown. */
import { CaravanError } from "@caravan/core/model";
import { t } from "@caravan/core/words";
import * as Comlink from "comlink";
import type { JobName, JobRunner, Jobs, OnProgress } from "./jobs";

export interface JobOptions {
  readonly onProgress?: OnProgress;
  /** Aborting ends the worker at once, whatever it is doing; the call throws `cancelled`. */
  readonly signal?: AbortSignal;
}

const NOT_LOADED =
  "A part of Caravan could not be loaded: the server may have ended, or was updated. Save the project to a file, then reload the page.";

interface Hand {
  readonly worker: Worker;
  readonly runner: Comlink.Remote<JobRunner>;
}

/**
 * Decoding and packing keep a core busy each; more workers than this would only starve the screen. At least two, so that nothing waits for
 * an inspection.
 */
let mostHands = Math.max(2, Math.min(4, (globalThis.navigator?.hardwareConcurrency ?? 2) - 1));

const idle: Hand[] = [];
/** Priorities: what the user waits for comes before the files of a drop, which may be five hundred. */
const waiting = { soon: [] as (() => void)[], later: [] as (() => void)[] };
let hands = 0;

/** Bulk jobs that nobody watches one by one. */
const LATER: ReadonlySet<JobName> = new Set(["readArt", "inspect", "sweepPictures", "picturesOfNobody"]);

/** Runs a job in a worker. Throws the job's own error, or `cancelled`. */
export async function run<Name extends JobName>(
  name: Name,
  ask: Jobs[Name]["ask"],
  options: JobOptions = {},
): Promise<Jobs[Name]["answer"]> {
  const { signal, onProgress } = options;
  const hand = await takeHand(LATER.has(name) ? waiting.later : waiting.soon);
  // Until the job begins there is nothing to stop, and the worker is returned unused.
  let ended = true;
  let stop = () => {};
  try {
    if (signal?.aborted) throw cancelled();
    ended = false;
    const aborted = new Promise<never>((_, reject) => {
      stop = () => reject(cancelled());
      signal?.addEventListener("abort", stop, { once: true });
      hand.worker.onerror = (event) => reject(new Error(`A worker failed: ${event.message}`));
    });
    // Progress has its own channel and may arrive after the answer; then it is ignored.
    const progress = onProgress && Comlink.proxy((done: number) => !ended && onProgress(done));
    const call = hand.runner.run(name, ask as never, progress as never);
    const outcome = await Promise.race([call, aborted]);
    ended = true;
    if (outcome.ok) return outcome.answer as Jobs[Name]["answer"];
    if ("notLoaded" in outcome) throw new Error(NOT_LOADED);
    if ("fault" in outcome) throw new Error(outcome.fault);
    const { code, where, what, remedy } = outcome.problem;
    throw new CaravanError(code, where, what, remedy);
  } finally {
    // Thousands of jobs of one drop share a signal.
    signal?.removeEventListener("abort", stop);
    giveBack(hand, ended);
  }
}

async function takeHand(line: (() => void)[]): Promise<Hand> {
  for (;;) {
    const free = idle.pop();
    if (free) return free;
    if (hands < mostHands) {
      hands++;
      try {
        return await newHand();
      } catch (error) {
        hands--;
        // The server may be gone: existing workers then do all the work.
        mostHands = Math.max(1, hands);
        if (hands > 0) continue;
        wakeNext();
        throw error;
      }
    }
    await new Promise<void>((wake) => line.push(wake));
  }
}

/** A worker whose code has loaded. Throws if it does not load. */
async function newHand(): Promise<Hand> {
  const worker = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
  const runner = Comlink.wrap<JobRunner>(worker);
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error(NOT_LOADED));
  });
  try {
    await Promise.race([runner.isHere(), failed]);
    return { worker, runner };
  } catch (error) {
    worker.terminate();
    throw error;
  }
}

/** A hand whose job did not end is let go: there is no other way to stop it. */
function giveBack(hand: Hand, ended: boolean): void {
  if (ended) idle.push(hand);
  else {
    hand.worker.terminate();
    hands--;
  }
  wakeNext();
}

function wakeNext(): void {
  (waiting.soon.shift() ?? waiting.later.shift())?.();
}

function cancelled(): CaravanError {
  return new CaravanError("cancelled", t("work"), t("It was stopped."), t("Nothing was changed."));
}
