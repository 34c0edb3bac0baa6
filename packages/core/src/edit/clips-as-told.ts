/**
 * Clips of a source that is there already follow its metadata file: what the file changed is taken over, what a person changed stays, and what it
 * newly has is added. What the file said before is the common origin of both.
 */
import { type Clip, type ClipName, freeName, type Project, type Source, type SourceId, sourceById } from "../model";
import { type ArrivedClip, noArrivedClips, withArrivedClip } from "./arrived-clips";
import { withChanges } from "./changed-clip";
import { removeClip, renameClip, withClip } from "./clips";
import { pairedClips } from "./told-clips-paired";
import { clipsOf, isOn, plain, refsOf, saysSame, type ToldOfSource } from "./told-of-source";

/** What is to happen with clips that are not simply followed. */
export interface ClipChoices {
  /** Whether to add those that the project lacks: the ones that the file did not have before, also those that were removed since, or none. */
  readonly add: "new" | "all" | "none";
  /** Whether those that nobody changed go when the file has them no more: with a corrected reading they never were. */
  readonly removeGone: boolean;
}

/** What became of clips, by their names in the project. */
export interface ClipNews {
  readonly added: readonly string[];
  readonly changed: readonly string[];
  readonly removed: readonly string[];
  /** The file has them otherwise than the project, and what the project has stays: of those that are changed, too, where both changed it. */
  readonly kept: readonly string[];
  /** The file has them no more, and they stay. */
  readonly unlisted: readonly string[];
}

export const NO_NEWS: ClipNews = { added: [], changed: [], removed: [], kept: [], unlisted: [] };

/**
 * `before` is the project as it was, `after` the same with the source cut as the file says `now`; `told` what the file said of the source as it
 * was, null if that is not known. `arrived` is shared by the sources of one file, whose clips may go on from one to the next; it
 * gets the names of those that are there, too.
 */
export function withClipsAsTold(
  before: Project,
  after: Project,
  id: SourceId,
  now: ToldOfSource,
  told: ToldOfSource | null,
  { add, removeGone }: ClipChoices,
  arrived = noArrivedClips(),
): { readonly project: Project; readonly news: ClipNews } {
  const source = sourceById(before, id);
  const refs = refsOf(sourceById(after, id), now.frames);
  const { pairs, gone } = pairedClips(source, before.clips, clipsOf(now, refs), told && clipsOf(told, refsOf(source, told.frames)));
  const news = { added: [] as string[], changed: [] as string[], removed: [] as string[], kept: [] as string[], unlisted: [] as string[] };
  let next = after;
  for (const { was, clip } of gone) {
    if (removeGone && clip.steps.every(isOn(source)) && saysSame(plain(clip, source), was)) {
      next = removeClip(next, clip.name);
      news.removed.push(clip.name);
    } else news.unlisted.push(clip.name);
  }
  for (const pair of pairs) {
    const { clip, was, now } = pair;
    if (!clip) {
      if (add === "none" || (add === "new" && was !== null)) continue;
      const known = new Set<string>(next.clips.map(({ name }) => name));
      next = withArrivedClip(next, refs, pair.arrived, arrived);
      news.added.push(...next.clips.flatMap(({ name }) => (known.has(name) ? [] : [name])));
      continue;
    }
    const { clip: followed, isKept } = was ? withChanges(clip, source, was, now) : { clip, isKept: !saysSame(plain(clip, source), now) };
    let { name } = clip;
    next = followed === clip ? next : withClip(next, name, followed);
    if (was && was.name !== now.name && name === was.name) {
      name = freeName(now.name, new Set(next.clips.map((each) => each.name))) as ClipName;
      next = renameClip(next, clip.name, name);
    }
    if (next.clips.find((each) => each.name === name) !== clip) news.changed.push(name);
    if (isKept) news.kept.push(name);
    if (pair.arrived.ref !== undefined) arrived.named.set(pair.arrived.ref, name);
  }
  return { project: next, news };
}

/** The clips of a file that the project lacks, and whether the file had them before. Other arguments as in `withClipsAsTold`. */
export function clipsToAdd(
  clips: readonly Clip[],
  source: Source,
  now: ToldOfSource,
  told: ToldOfSource | null,
): { readonly clip: ArrivedClip; readonly isNew: boolean }[] {
  const plainOf = (each: ToldOfSource) => clipsOf(each, refsOf(source, each.frames), true);
  const { pairs } = pairedClips(source, clips, plainOf(now), told && plainOf(told));
  return pairs.flatMap(({ arrived, was, clip }) => (clip ? [] : [{ clip: arrived, isNew: was === null }]));
}
