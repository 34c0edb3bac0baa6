/** Checks a source's frames for problems in a worker, a moment after they last changed. */
import { looksOf } from "@caravan/core/art";
import type { Source } from "@caravan/core/model";
import { useEffect } from "react";
import { create } from "zustand";
import { inBackground } from "../ui/in-background";
import { run } from "../workers/client";
import { asText, type Inspection } from "../workers/jobs";
import { filesOfLook } from "./picture-files";

/** A grid that is being nudged is not looked at until it rests. */
const REST = 900; // ms

const useInspected = create<{ readonly of: Source | null; readonly inspection: Inspection | null }>(() => ({ of: null, inspection: null }));

/** Looks at the source's frames for as long as the component is shown. Only one component at a time may ask. */
export function useInspecting(source: Source): void {
  useEffect(() => {
    if (source.frames.length === 0 || useInspected.getState().of === source) return;
    const stopping = new AbortController();
    const timer = setTimeout(() => inBackground(inspect(source, stopping.signal)), REST);
    return () => {
      clearTimeout(timer);
      stopping.abort();
    };
  }, [source]);
}

/** The latest result, null until it matches the current source. */
export function useInspection(source: Source): Inspection | null {
  return useInspected(({ of, inspection }) => (of === source ? inspection : null));
}

async function inspect(source: Source, signal: AbortSignal): Promise<void> {
  try {
    const pictures = await Promise.all(looksOf(source).map(async (look) => ({ look, files: await filesOfLook(look) })));
    const inspection = await run("inspect", { source: asText(source), pictures }, { signal });
    if (!signal.aborted) useInspected.setState({ of: source, inspection });
  } catch {
    // An unreadable picture is reported where it is shown; there is nothing to check in it.
  }
}
