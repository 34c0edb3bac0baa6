/**
 * Remembers how the open project's sources were cut since the page opened, and which frames that lost, so that a later cut can return to it with
 * all that was decided: a grid nudged by a pixel and back, an edge dragged over a row and back, outlines tried. What was undone is forgotten.
 */
import { type EarlierCuts, framesLost, type LostFrame, recipeOf, stillLost } from "@caravan/core/edit";
import type { Cut, Project, Source, SourceId } from "@caravan/core/model";
import { useOpenProject } from "./open-project";

/** The most frames remembered of one source, and the most recipes; the latest. */
const MOST_FRAMES = 20_000;
const MOST_RECIPES = 16;

/** Part of a state of the project, `at` as many applied edits since the first: an undo to fewer takes it back. */
interface Noted {
  readonly at: number;
}

interface Memory {
  readonly lost: readonly (LostFrame & Noted)[];
  /** The source as it was last cut by each recipe, from the same art; the latest last. */
  readonly before: ReadonlyMap<string, Noted & { readonly source: Source }>;
  /** Until when something was decided about a frame, by its key. */
  readonly decided: Map<string, number>;
}

const nothing = (): Memory => ({ lost: [], before: new Map(), decided: new Map() });

const memories = new Map<SourceId, Memory>();

/** What a cut of a source by this recipe may return to. */
export function earlierCuts(source: Source, cut: Cut | null): EarlierCuts {
  const { lost, before, decided } = memories.get(source.id) ?? nothing();
  const known = before.get(recipeOf({ ...source, cut }));
  return { lost, before: known?.source, isDecided: (key) => (decided.get(key) ?? 0) > (known?.at ?? 0) };
}

/** The source as it was last cut into cells; null if it was not. */
export function lastCells({ id }: Source): Source | null {
  const all = [...(memories.get(id)?.before.values() ?? [])];
  return all.findLast(({ source: { cut } }) => cut?.by === "cell" || cut?.by === "count")?.source ?? null;
}

useOpenProject.subscribe((open, before) => {
  if (open.project === before.project) return;
  if (open.id !== before.id) memories.clear();
  // An undo or a redo.
  else if (open.history.entries === before.history.entries) forget(open.history.first + open.history.cursor);
  else remember(before.project, open.project, before.history.first + before.history.cursor);
});

/** Without what is not in the past of the state that this many edits led to. */
function forget(now: number): void {
  const isPast = ({ at }: Noted) => at <= now;
  for (const [id, { lost, before, decided }] of memories)
    memories.set(id, {
      lost: lost.filter(isPast),
      before: new Map([...before].filter(([, each]) => isPast(each))),
      // Whether there was an earlier decision is not known: it counts.
      decided: new Map([...decided].map(([key, at]) => [key, Math.min(at, now)])),
    });
}

function remember(before: Project, after: Project, at: number): void {
  for (const [source, next] of changed(before, after)) {
    const memory = memories.get(source.id) ?? nothing();
    const isSameCut = recipeOf(source) === recipeOf(next);
    memories.set(source.id, isSameCut ? withDecisions(memory, source, next, at + 1) : withRecipe(memory, source, next, at));
  }
}

function withRecipe({ lost, before, decided }: Memory, source: Source, next: Source, at: number): Memory {
  const latest = framesLost(source, next).map((each) => ({ ...each, at }));
  const recipe = recipeOf(source);
  const others = [...before].filter(([each]) => each !== recipe);
  return {
    lost: lost.length + latest.length === 0 ? [] : [...stillLost(lost, next, latest), ...latest].slice(-MOST_FRAMES),
    before: source.cut === null ? before : new Map([...others, [recipe, { source, at }] as const].slice(-MOST_RECIPES)),
    decided,
  };
}

/** With the frames noted that were changed without another cut. It runs at every edit: only those that changed cost anything. */
function withDecisions(memory: Memory, source: Source, next: Source, at: number): Memory {
  // Frames stand on the common origin, and their numbers depend on the scale.
  const all = source.origin !== next.origin || source.scale !== next.scale;
  if (memory.before.size === 0 || (source.frames === next.frames && !all)) return memory;
  const alike = source.frames.length === next.frames.length;
  for (const [k, frame] of next.frames.entries()) if (all || !alike || source.frames[k] !== frame) memory.decided.set(frame.key, at);
  return memory;
}

/** The sources that changed, as they were and as they are. */
function changed(before: Project, after: Project): [Source, Source][] {
  if (before.sources === after.sources) return [];
  const now = new Map(after.sources.map((source) => [source.id, source]));
  return before.sources.flatMap((source): [Source, Source][] => {
    const next = now.get(source.id);
    return next && next !== source ? [[source, next]] : [];
  });
}
