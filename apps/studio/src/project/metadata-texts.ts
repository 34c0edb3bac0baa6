/** Keeps the metadata files that cut sources, so that a field can be read differently later. */

import { sheetLook } from "@caravan/core/art";
import { type ClipNews, cutByMetadata, type ToldOfSource, withClipsAsTold } from "@caravan/core/edit";
import type { NewFrame } from "@caravan/core/frame-identity";
import { cutByFile, framesAndClips, pictureCalled } from "@caravan/core/intake";
import type { Grade, Understood, Unplaced } from "@caravan/core/metadata";
import { type Project, type Reading, type Source, type SourceId, scaleOf, sourceById, whyOf } from "@caravan/core/model";
import { useEffect } from "react";
import { create } from "zustand";
import { inBackground } from "../ui/in-background";
import { t } from "../ui/words";
import { run } from "../workers/client";
import { type Begun, begin } from "./begun";
import { sayClipNews } from "./clip-news";
import { earlierCuts } from "./earlier-cuts";
import { inTurn } from "./in-turn";
import { keepTextOf, textOf } from "./kept-texts";
import { currentProject, useOpenProject } from "./open-project";
import { pictureOfLook } from "./pictures";

export interface MetadataText {
  readonly text: string;
  readonly file: string;
  /** Paths that its records have. */
  readonly paths: readonly string[];
  /** Records that do not fit in the current reading. */
  readonly unplaced: readonly Unplaced[];
  /** The confidence of the current reading. */
  readonly grade: Grade;
}

const useMetadataTexts = create<{ readonly project: string | null; readonly texts: ReadonlyMap<string, MetadataText> }>(() => ({
  project: null,
  texts: new Map(),
}));

/** The text of a source that a metadata file cuts; undefined while it is read, or if this browser does not hold it. */
export function useMetadataText(source: Source): MetadataText | undefined {
  const project = useOpenProject((open) => open.id);
  const key = keyOf(source);
  const known = useMetadataTexts((state) => (state.project === project ? state.texts.get(key) : undefined));
  const reading = source.cut?.by === "metadata" ? source.cut.reading : null;
  useEffect(() => {
    if (project !== null && reading && !known) inBackground(recall(project, source, reading));
  }, [project, source, reading, known]);
  return known;
}

/** Keeps the text that the source is cut by in this browser too. */
export function keepMetadataText(source: Source, text: MetadataText): void {
  const { id } = useOpenProject.getState();
  if (id === null) return;
  hold(id, source, text);
  inBackground(keepTextOf(source, text.text));
}

function hold(project: string, source: Source, text: MetadataText): void {
  useMetadataTexts.setState((state) => ({
    project,
    texts: new Map(state.project === project ? state.texts : []).set(keyOf(source), text),
  }));
}

/** An undo brings back another text, or another reading of it. */
function keyOf({ id, cut }: Source): string {
  return `${id} ${JSON.stringify(cut)}`;
}

async function recall(project: string, source: Source, reading: Reading): Promise<void> {
  const stored = await textOf(source);
  if (!stored) return;
  const { paths, unplaced, grade } = await understood(source, stored.text, stored.file, reading);
  if (useOpenProject.getState().id === project) hold(project, source, { text: stored.text, file: stored.file, paths, unplaced, grade });
}

async function understood(source: Source, text: string, file: string, reading: Reading): Promise<Understood> {
  const { coverage } = await pictureOfLook(sheetLook(source));
  return run("readAs", { text, where: file, picture: pictureCalled(source, text), coverage, reading });
}

/** Cuts the source again by its reading, corrected, and its clips follow. Returns an error message, or null. */
export function readAgain({ id }: Source, correct: (reading: Reading) => Reading): Promise<string | null> {
  const work = begin();
  return inTurn(() => readCorrected(work, id, correct));
}

async function readCorrected(work: Begun, id: SourceId, correct: (reading: Reading) => Reading): Promise<string | null> {
  try {
    work.still();
    const source = sourceById(currentProject(), id);
    if (source.cut?.by !== "metadata") return t("It is cut another way by now.");
    const known = useMetadataTexts.getState().texts.get(keyOf(source));
    if (!known) return t("To correct how it is read, drop {file} again.", { file: source.cut.file });
    const reading = correct(source.cut.reading);
    const { frames, clips, unplaced, grade } = await understood(source, known.text, known.file, reading);
    if (frames.length === 0) return t("Read this way, no frame is on the picture. {why}", { why: unplaced[0]?.why ?? "" });
    work.stillHas(source);
    const now = toldIn({ frames, clips }, known.file);
    const before = toldIn(await understood(source, known.text, known.file, source.cut.reading), known.file);
    work.stillHas(source);
    const cut = cutByFile(known.file, known.text, reading);
    const args = [source.id, cut, now.frames, before.frames, earlierCuts(source, cut)] as const;
    let news: ClipNews | null = null;
    const change = (project: Project) => {
      const cutAgain = cutByMetadata(project, ...args);
      const followed = withClipsAsTold(project, cutAgain, source.id, now, before, { add: "new", removeGone: true });
      news = followed.news;
      return followed.project;
    };
    const error = work.apply(change, (project) => cutByMetadata.label(project, ...args));
    if (error) return error.message;
    keepMetadataText(sourceById(currentProject(), source.id), { ...known, unplaced, grade });
    if (news) sayClipNews(news, { name: known.file, kind: "metadata" });
    return null;
  } catch (error) {
    return whyOf(error);
  }
}

/** What the source's metadata file said, to distinguish a person's decisions from the file; null if this browser does not have it. */
export async function toldBefore(source: Source): Promise<ToldOfSource | null> {
  const stored = await textOf(source);
  if (!stored || source.cut?.by !== "metadata") return null;
  const told = await understood(source, stored.text, stored.file, source.cut.reading).catch(() => null);
  return told && toldIn(told, stored.file);
}

export function toldIn(read: Pick<Understood, "frames" | "clips">, file: string): ToldOfSource {
  const { told, clips } = framesAndClips(read, file);
  return { frames: told, clips };
}

/** What may be supposed of frames if nothing says what their file said before: names, and origins if the `next` file gives any. */
export function supposedlyTold(source: Source, next: readonly NewFrame[]): NewFrame[] {
  const origins = next.some(({ origin }) => origin !== undefined);
  return source.frames.map(({ key, column, row, number, rect, picture, name, origin }) => ({
    ...{ key, column, row, number, rect, empty: false },
    ...(picture === undefined ? {} : { picture }),
    ...(name === undefined ? {} : { name }),
    // A file gives its origins in art pixels.
    ...(origins && origin ? { origin: { x: origin.x / scaleOf(source), y: origin.y / scaleOf(source) } } : {}),
  }));
}
