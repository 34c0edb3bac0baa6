/** Traces outlines in a worker whenever the project is idle: they are recipes, and their results depend on art, origins and clips. */
import { frameLook } from "@caravan/core/art";
import { type FrameOutlines, outlineKinds, type SteadyGroup, steadied } from "@caravan/core/marks";
import { type FrameRef, findFrame, keptRefs, originOf, type Project, scaleOf } from "@caravan/core/model";
import { create } from "zustand";
import { inBackground } from "../ui/in-background";
import { run } from "../workers/client";
import { asText } from "../workers/jobs";
import { useOpenProject } from "./open-project";
import { picturesOfFrames } from "./pictures-of-frames";
import { useSeenArt } from "./seen-art";
import { useView } from "./view";

/** How long the project rests before: while a number is dragged it would be traced at each step. */
const REST = 60; // ms
/** The number of frames traced before results are shown; later rounds are larger, because each decodes its pictures again. */
const FIRST = 200;
const THEN = 4_000;

/** What each frame's outlines were traced from; if it changes, they are traced again. */
let tracedFrom = new Map<FrameRef, readonly unknown[]>();
let resting: ReturnType<typeof setTimeout> | undefined;
let stopping: AbortController | undefined;

/** Frames whose traced outlines are older than the last change; possibly all until checked. */
export const useTracing = create<{ readonly stale: ReadonlySet<FrameRef> | "all" }>(() => ({ stale: new Set() }));

useOpenProject.subscribe(({ project }, before) => {
  if (project !== before.project) traceOnceAtRest(project);
});
traceOnceAtRest(useOpenProject.getState().project);

function traceOnceAtRest(project: Project): void {
  clearTimeout(resting);
  stopping?.abort();
  const has = outlineKinds(project).length > 0;
  useTracing.setState({ stale: has ? "all" : new Set() });
  if (has) resting = setTimeout(() => inBackground(trace(project)), REST);
  else if (useSeenArt.getState().outlines.size > 0) useSeenArt.setState({ outlines: new Map() });
}

async function trace(project: Project): Promise<void> {
  const mine = new AbortController();
  stopping = mine;
  const inputs = inputsIn(project);
  const wanted = new Map(project.sources.flatMap(keptRefs).map((ref) => [ref, inputs(ref)] as const));
  const before = useSeenArt.getState().outlines;
  const isSame = (ref: FrameRef) => sameList(tracedFrom.get(ref), wanted.get(ref));
  const kept = new Map([...before].filter(([ref]) => isSame(ref)));
  const stale = inSight(project, [...wanted.keys()]).filter((ref) => !isSame(ref));
  // Stale outlines stay visible until they are traced again; those of removed frames disappear.
  const shown = new Map([...before].filter(([ref]) => wanted.has(ref)));
  useTracing.setState({ stale: new Set(stale) });
  tracedFrom = new Map([...tracedFrom].filter(([ref]) => isSame(ref)));
  if (stale.length === 0) {
    if (kept.size !== before.size) useSeenArt.setState({ outlines: kept });
    return;
  }
  const text = asText(project);
  for (let k = 0; k < stale.length; k += k === 0 ? FIRST : THEN) {
    const frames = stale.slice(k, k + (k === 0 ? FIRST : THEN));
    const found = await traced(project, text, frames, mine.signal);
    if (mine.signal.aborted) return;
    for (const ref of frames) {
      const outlines = found.get(ref);
      // A frame without outlines may get some once its picture is there, so it is checked again.
      if (outlines) tracedFrom.set(ref, wanted.get(ref) ?? []);
      if (outlines) shown.set(ref, outlines);
      else shown.delete(ref);
    }
    useSeenArt.setState({ outlines: new Map(shown) });
    useTracing.setState({ stale: new Set(stale.slice(k + frames.length)) });
  }
}

/** An unavailable picture is reported where it is shown; frames of its source are skipped, all others are traced. */
async function traced(
  project: Project,
  text: ReturnType<typeof asText<Project>>,
  frames: readonly FrameRef[],
  signal: AbortSignal,
): Promise<ReadonlyMap<FrameRef, FrameOutlines>> {
  const groups = outlineKinds(project).flatMap(({ trace: by }) => (by ? [steadied(project, by)] : []));
  const all = new Set([...frames, ...frames.flatMap((ref) => groups.flatMap((each) => each.get(ref)?.refs ?? []))]);
  try {
    // If everything is drawn by hand, no picture is needed.
    const pictures = outlineKinds(project).some(({ trace: by }) => by)
      ? await picturesOfFrames(project, [...all])
      : new Map<string, Blob>();
    return await run("traceOutlines", { project: text, frames, pictures }, { signal });
  } catch {
    const sourceOf = (ref: FrameRef) => ref.slice(0, ref.indexOf("/"));
    const sources = [...new Set(frames.map(sourceOf))];
    if (sources.length < 2 || signal.aborted) return new Map();
    const parts: (readonly [FrameRef, FrameOutlines])[] = [];
    for (const source of sources) {
      const own = frames.filter((ref) => sourceOf(ref) === source);
      parts.push(...(await traced(project, text, own, signal)));
    }
    return new Map(parts);
  }
}

/** What each group's outline was traced from, with a token that stays while it is the same. */
let tokens = new Map<string, { readonly inputs: readonly unknown[]; readonly token: object }>();

/** Everything that a frame's outlines depend on. */
function inputsIn(project: Project): (ref: FrameRef) => unknown[] {
  const before = tokens;
  tokens = new Map();
  const kinds = outlineKinds(project).map((kind) => ({
    kind,
    groups: kind.trace ? steadied(project, kind.trace) : new Map<FrameRef, SteadyGroup>(),
  }));
  const tokenOf = (name: string, { of, refs }: SteadyGroup): object => {
    const key = JSON.stringify([name, of]);
    const known = tokens.get(key);
    if (known) return known.token;
    const inputs = [...refs, ...refs.flatMap((ref) => drawnBy(project, ref))];
    const old = before.get(key);
    const next = old && sameList(old.inputs, inputs) ? old : { inputs, token: {} };
    tokens.set(key, next);
    return next.token;
  };
  return (ref) => {
    const own = drawnBy(project, ref);
    return kinds.flatMap(({ kind, groups }) => {
      const group = groups.get(ref);
      return [kind, ...own, group ? tokenOf(kind.name, group) : null];
    });
  };
}

function drawnBy(project: Project, ref: FrameRef): unknown[] {
  const found = findFrame(project, ref);
  if (!found) return [];
  const { source, frame } = found;
  const { x, y } = originOf(source, frame);
  return [frame.rect, frame.marks?.outlines, frameLook(project, source, frame), scaleOf(source), x, y];
}

/** Those of the chosen clip first. */
function inSight({ clips }: Project, refs: readonly FrameRef[]): FrameRef[] {
  const { clipName } = useView.getState();
  const first = new Set(clips.find(({ name }) => name === clipName)?.steps.map(({ frame }) => frame));
  return [...refs.filter((ref) => first.has(ref)), ...refs.filter((ref) => !first.has(ref))];
}

function sameList(a: readonly unknown[] | undefined, b: readonly unknown[] | undefined): boolean {
  return a !== undefined && b !== undefined && a.length === b.length && a.every((each, k) => each === b[k]);
}
