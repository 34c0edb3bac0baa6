/** Sources that are there, cut again as a metadata file says, alone or with new art; their clips follow. */
import {
  type ArrivedClips,
  type ChangedPicture,
  type ClipNews,
  cutByMetadata,
  noArrivedClips,
  refreshByMetadata,
  type ToldOfSource,
  withClipsAsTold,
} from "@caravan/core/edit";
import { cutByFile, fileOf, type Recut, type TakenDescription } from "@caravan/core/intake";
import type { Project, Source, SourceId } from "@caravan/core/model";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";
import { newsInWords } from "../clip-news";
import { supposedlyTold, toldIn } from "../metadata-texts";

export interface CutAgain {
  readonly source: SourceId;
  /** `arrived` is shared by the sources of one drop, whose clips may go on from one to the next. */
  change(project: Project, arrived: ArrivedClips): { readonly project: Project; readonly news: ClipNews };
  label(project: Project): string;
  /** What became of its frames; null if it had none. */
  framesBecame(before: Project, after: Project): FramesBecame | null;
  /** That in words. */
  words(facts: FramesBecame): string;
  readonly file: string;
}

interface FramesBecame {
  readonly name: string;
  readonly file: string;
  readonly kept: number;
  readonly count: number;
  readonly gone: number;
}

/** As a file says that came without pictures. */
export function cutAsSaid({ source, cut, frames, clips, before, add }: Recut, withClips: boolean): CutAgain {
  const args = [source, cut, frames, before?.frames] as const;
  return cutAgain(source, cut.file, { frames, clips }, before, withClips ? add : "none", {
    change: (project) => cutByMetadata(project, ...args),
    label: (project) => cutByMetadata.label(project, ...args),
    words: (facts) => t("{name} is cut again as {file} says: {kept} frames kept, {count} new, {gone} gone.", { ...facts }),
  });
}

/** With the picture that came with the file, which may be the one that the source has. */
export function cutWithArt(
  source: Source,
  picture: ChangedPicture,
  { understood, path, text }: TakenDescription,
  before: ToldOfSource | null,
): CutAgain {
  const now = toldIn(understood, path);
  const cut = cutByFile(path, text, understood.reading);
  if (source.pictures[0]?.sha256 === picture.sha256) return cutAsSaid({ source: source.id, cut, ...now, before, add: "new" }, true);
  const args = [source.id, picture, cut, now.frames, before?.frames ?? supposedlyTold(source, now.frames)] as const;
  return cutAgain(source.id, fileOf(path), now, before, "new", {
    change: (project) => refreshByMetadata(project, ...args),
    label: (project) => refreshByMetadata.label(project, ...args),
    words: (facts) => t("New art of {name}, cut as {file} says: {kept} frames kept, {count} new, {gone} gone.", { ...facts }),
  });
}

/** What it would do: in words, and which clips it would find or add, by their refs. */
interface Outcome {
  readonly words: string;
  readonly there: ReadonlySet<string>;
  readonly added: ReadonlySet<string>;
}

/** Null if it would do nothing, or if it is refused, which is said when it is done. */
export function outcomeOf(again: CutAgain, project: Project): Outcome | null {
  try {
    const arrived = noArrivedClips();
    const { project: after, news } = again.change(project, arrived);
    const frames = again.framesBecame(project, after);
    const text = [
      ...(frames ? [t("{kept} frames kept, {count} new, {gone} gone.", { ...frames })] : []),
      ...newsInWords(news, { name: again.file, kind: "metadata" }).sentences,
    ].join(" ");
    if (text === "") return null;
    const added = [...arrived.named].flatMap(([ref, name]) => (news.added.includes(name) ? [ref] : []));
    return { words: text, there: new Set(arrived.named.keys()), added: new Set(added) };
  } catch {
    return null;
  }
}

export function sayOutcome(again: CutAgain, before: Project, after: Project, news: ClipNews): void {
  const frames = again.framesBecame(before, after);
  const clips = newsInWords(news, { name: again.file, kind: "metadata" });
  const text = [...(frames ? [again.words(frames)] : []), ...clips.sentences].join(" ");
  if (text !== "") say({ tone: (frames?.gone ?? 0) > 0 || clips.isUnlike ? "trouble" : "good", text });
}

interface Doing extends Pick<CutAgain, "label" | "words"> {
  change(project: Project): Project;
}

function cutAgain(
  id: SourceId,
  file: string,
  now: ToldOfSource,
  before: ToldOfSource | null,
  add: "new" | "all" | "none",
  { change, label, words }: Doing,
): CutAgain {
  const framesOf = ({ sources }: Project) => sources.find((each) => each.id === id)?.frames ?? [];
  return {
    ...{ source: id, file, label, words },
    change: (project, arrived) => withClipsAsTold(project, change(project), id, now, before, { add, removeGone: false }, arrived),
    framesBecame: (was, is) => {
      const [old, frames] = [framesOf(was), framesOf(is)];
      const keys = new Set(old.map(({ key }) => key));
      const kept = frames.filter(({ key }) => keys.has(key)).length;
      const name = is.sources.find((each) => each.id === id)?.name ?? "";
      return old.length === 0 ? null : { name, file, kept, count: frames.length - kept, gone: old.length - kept };
    },
  };
}
