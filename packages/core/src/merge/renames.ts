/** Applies one side's renames to the other version, references included, before the two are compared. */
import { renameAction, renameBehaviour, renameClip, renameMarkKind, renamePalette, renamePart, renameStage } from "../edit";
import {
  type Action,
  type Behaviour,
  CaravanError,
  type Clip,
  FIELD_OF_SHAPE,
  type FrameRef,
  frameRef,
  type MarkKind,
  type Palette,
  type Project,
} from "../model";
import { areMostlyAlike, same } from "../three-way";
import type { Versions } from "./versions";

export interface Rename {
  readonly list: keyof typeof RENAMES;
  readonly from: string;
  readonly to: string;
}

interface Named {
  readonly name: string;
}

/** Lists whose items are identified by name, with the edit that renames one. */
export const RENAMES = {
  clips: (project: Project, from: string, to: string) => renameClip(project, from as never, to),
  actions: (project: Project, from: string, to: string) => renameAction(project, from as never, to),
  marks: (project: Project, from: string, to: string) => renameMarkKind(project, from as never, to),
  palettes: (project: Project, from: string, to: string) => renamePalette(project, from, to),
  parts: (project: Project, from: string, to: string) => renamePart(project, from, to),
  behaviours: (project: Project, from: string, to: string) => renameBehaviour(project, from as never, to),
  stages: (project: Project, from: string, to: string) => renameStage(project, from as never, to),
} as const;
const LISTS = Object.keys(RENAMES) as (keyof typeof RENAMES)[];

function named(project: Project, list: keyof typeof RENAMES): readonly Named[] {
  return (project[list] ?? []) as readonly Named[];
}

/**
 * Pairs of removed and added items that are otherwise the same, or else made of mostly the same parts; ambiguous ones are left out. List by
 * list: what a list's items refer to has its new names by then, so that an action renamed together with its clips is the same one.
 */
export function renamesIn(base: Project, side: Project): Rename[] {
  const found: Rename[] = [];
  let before = base;
  for (const list of LISTS) {
    const pairs = renamesOf(list, before, side);
    for (const each of pairs) before = renamed(before, each);
    found.push(...pairs);
  }
  return found;
}

function renamesOf(list: Rename["list"], base: Project, side: Project): Rename[] {
  const [before, after] = [named(base, list), named(side, list)];
  const had = new Set(before.map(({ name }) => name));
  const has = new Set(after.map(({ name }) => name));
  const fresh = after.filter(({ name }) => !had.has(name));
  const gone = before.filter(({ name }) => !has.has(name));
  if (gone.length === 0 || fresh.length === 0) return [];
  const equal = pairsOf(gone, fresh, list === "marks" ? sameMarks(base, side) : isAlike);
  const used = new Set(equal.flat());
  const isFree = (each: Named) => !used.has(each);
  const changed = pairsOf(gone.filter(isFree), fresh.filter(isFree), mostlyAlike(list));
  return [...equal, ...changed].map(([from, to]) => ({ list, from: from.name, to: to.name }));
}

/** Items that are the same as one of the others, and it as none but them. */
function pairsOf(gone: readonly Named[], fresh: readonly Named[], isSame: (a: Named, b: Named) => boolean): [Named, Named][] {
  return gone.flatMap((each): [Named, Named][] => {
    const alike = fresh.filter((other) => isSame(each, other));
    const [only] = alike;
    return only && alike.length === 1 && gone.filter((other) => isSame(other, only)).length === 1 ? [[each, only]] : [];
  });
}

/** Whether more than half of the parts of both are the same: what was changed along with its name. */
function mostlyAlike(list: Rename["list"]): (a: Named, b: Named) => boolean {
  const parts = PARTS[list];
  if (!parts) return () => false;
  return (a, b) => areMostlyAlike(parts(a), parts(b));
}

/** What an item is known by, where that is more than its settings, which many items share. */
const PARTS: Partial<Record<Rename["list"], (item: Named) => readonly string[]>> = {
  clips: (item) => (item as Clip).steps.map(({ frame }) => frame),
  actions: (item) => Object.entries((item as Action).facings).map((petal) => JSON.stringify(petal)),
  palettes: (item) => (item as Palette).colours.map((colour) => JSON.stringify(colour)),
  behaviours: (item) => (item as Behaviour).rules.map((rule) => JSON.stringify(rule)),
};

/** Equal except for the name; for clips, the same frames in the same order, whatever else changed with the name. */
function isAlike(a: Named, b: Named): boolean {
  const framesOf = (each: Named) => ("steps" in each ? (each.steps as { frame: string }[]).map(({ frame }) => frame) : null);
  const frames = framesOf(a);
  if (frames && frames.length > 0) return same(frames, framesOf(b));
  const { name: _a, ...restA } = a;
  const { name: _b, ...restB } = b;
  return same(restA, restB);
}

/**
 * Kinds of marks are the same by what frames have of them, because many kinds look alike and a renamed one gets another letter: at least
 * half of the earlier one's frames have the very same of the later one. A kind that no frame has must be equal but for name and letter.
 */
function sameMarks(base: Project, side: Project): (a: Named, b: Named) => boolean {
  const [earlier, later] = [marksOnFrames(base), marksOnFrames(side)];
  return (a, b) => {
    const [kind, other] = [a as MarkKind, b as MarkKind];
    if (kind.shape !== other.shape) return false;
    const [was, is] = [earlier(kind), later(other)];
    if (was.size > 0) return [...was].filter(([frame, mark]) => same(is.get(frame), mark)).length * 2 >= was.size;
    return is.size === 0 && same({ ...kind, name: "", letter: "" }, { ...other, name: "", letter: "" });
  };
}

/** For a kind of marks, what each frame has of it. */
function marksOnFrames({ sources }: Project): (kind: MarkKind) => Map<FrameRef, unknown> {
  const frames = sources.flatMap((source) => source.frames.map((frame) => [frameRef(source, frame), frame.marks] as const));
  return ({ name, shape }) => {
    const field = FIELD_OF_SHAPE[shape];
    return new Map(
      frames.flatMap(([ref, marks]) => {
        const own = marks?.[field];
        return own && Object.hasOwn(own, name) ? [[ref, own[name]] as const] : [];
      }),
    );
  };
}

export interface Followed extends Versions {
  /** What both sides renamed, each otherwise: ours stays. */
  readonly twice: readonly { readonly list: string; readonly from: string; readonly ours: string; readonly theirs: string }[];
}

/** All three with the names that either side gave. */
export function withRenamesFollowed(base: Project, ours: Project, theirs: Project): Followed {
  const [mine, hers] = [renamesIn(base, ours), renamesIn(base, theirs)];
  const twice: { list: string; from: string; ours: string; theirs: string }[] = [];
  let now = { base, ours, theirs };
  for (const each of mine) {
    const other = hers.find(({ list, from }) => list === each.list && from === each.from);
    if (other && other.to !== each.to) twice.push({ list: each.list, from: each.from, ours: each.to, theirs: other.to });
    now = { ...now, base: renamed(now.base, each), theirs: renamed(now.theirs, other ? { ...each, from: other.to } : each) };
  }
  for (const each of hers) {
    if (mine.some(({ list, from }) => list === each.list && from === each.from)) continue;
    now = { ...now, base: renamed(now.base, each), ours: renamed(now.ours, each) };
  }
  return { ...now, twice };
}

/** Unchanged if the name is missing there, or already used. */
function renamed(project: Project, { list, from, to }: Rename): Project {
  if (!named(project, list).some(({ name }) => name === from)) return project;
  try {
    return RENAMES[list](project, from, to);
  } catch (error) {
    if (error instanceof CaravanError) return project;
    throw error;
  }
}
