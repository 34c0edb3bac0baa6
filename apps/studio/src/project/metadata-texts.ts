/** Keeps the metadata files that cut sources, so that a field can be read differently later. */

import { sheetLook } from "@caravan/core/art";
import { cutByMetadata } from "@caravan/core/edit";
import type { NewFrame } from "@caravan/core/frame-identity";
import { framesAndClips } from "@caravan/core/intake";
import type { Grade, Understood, Unplaced } from "@caravan/core/metadata";
import { type Reading, type Source, type SourceId, scaleOf, whyOf } from "@caravan/core/model";
import { useEffect } from "react";
import { create } from "zustand";
import { inBackground } from "../ui/in-background";
import { t } from "../ui/words";
import { run } from "../workers/client";
import { begin } from "./begun";
import { earlierCuts } from "./earlier-cuts";
import { useOpenProject } from "./open-project";
import { pictureOfLook } from "./pictures";
import { storage } from "./storage";

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

const useMetadataTexts = create<{ readonly project: string | null; readonly texts: ReadonlyMap<SourceId, MetadataText> }>(() => ({
  project: null,
  texts: new Map(),
}));

/** The text of a source that a metadata file cuts; undefined while it is read, or if this browser does not hold it. */
export function useMetadataText(source: Source): MetadataText | undefined {
  const project = useOpenProject((open) => open.id);
  const known = useMetadataTexts((state) => (state.project === project ? state.texts.get(source.id) : undefined));
  const reading = source.cut?.by === "metadata" ? source.cut.reading : null;
  useEffect(() => {
    if (project !== null && reading && !known) inBackground(recall(project, source, reading));
  }, [project, source, reading, known]);
  return known;
}

/** Keeps the text in this browser too. One that finds no room there is kept for as long as the page is open. */
export function keepMetadataText(source: SourceId, text: MetadataText): void {
  const { id } = useOpenProject.getState();
  if (id === null) return;
  hold(id, source, text);
  storage.texts.put({ project: id, source, file: text.file, text: text.text }).catch(() => {});
}

function hold(project: string, source: SourceId, text: MetadataText): void {
  useMetadataTexts.setState((state) => ({
    project,
    texts: new Map(state.project === project ? state.texts : []).set(source, text),
  }));
}

async function recall(project: string, source: Source, reading: Reading): Promise<void> {
  const stored = await storage.texts.get([project, source.id]);
  if (!stored || source.cut?.by !== "metadata" || stored.file !== source.cut.file) return;
  const { paths, unplaced, grade } = await understood(source, stored.text, stored.file, reading);
  if (useOpenProject.getState().id === project) hold(project, source.id, { text: stored.text, file: stored.file, paths, unplaced, grade });
}

async function understood(source: Source, text: string, file: string, reading: Reading): Promise<Understood> {
  const { coverage } = await pictureOfLook(sheetLook(source));
  return run("readAs", { text, where: file, picture: `${source.name}.png`, coverage, reading });
}

/** Cuts the source again by a corrected reading. Returns an error message, or null. */
export async function readAgain(source: Source, known: MetadataText, reading: Reading): Promise<string | null> {
  const work = begin();
  try {
    const { frames, clips, unplaced, grade } = await understood(source, known.text, known.file, reading);
    if (frames.length === 0) return t("Read this way, no frame is on the picture. {why}", { why: unplaced[0]?.why ?? "" });
    work.stillHas(source);
    const { told } = framesAndClips({ frames, clips }, known.file);
    const before = source.cut?.by === "metadata" ? await understood(source, known.text, known.file, source.cut.reading) : null;
    work.stillHas(source);
    const toldBefore = before && framesAndClips(before, known.file).told;
    const cut = { by: "metadata" as const, file: known.file, reading };
    const error = work.edit(cutByMetadata, source.id, cut, told, toldBefore, earlierCuts(source, cut));
    if (!error) keepMetadataText(source.id, { ...known, unplaced, grade });
    return error?.message ?? null;
  } catch (error) {
    return whyOf(error);
  }
}

/**
 * What the source's metadata file said about its frames, as far as known, to distinguish a person's decisions from the file. Without the
 * file in this browser: names, and origins if the next file (`next`) gives any.
 */
export async function toldBefore(source: Source, next: readonly NewFrame[]): Promise<readonly NewFrame[]> {
  const { id } = useOpenProject.getState();
  const stored = id === null ? undefined : await storage.texts.get([id, source.id]).catch(() => undefined);
  if (stored && source.cut?.by === "metadata" && stored.file === source.cut.file) {
    const told = await understood(source, stored.text, stored.file, source.cut.reading).catch(() => null);
    if (told) return framesAndClips(told, stored.file).told;
  }
  const origins = next.some(({ origin }) => origin !== undefined);
  return source.frames.map(({ key, column, row, number, rect, picture, name, origin }) => ({
    ...{ key, column, row, number, rect, empty: false },
    ...(picture === undefined ? {} : { picture }),
    ...(name === undefined ? {} : { name }),
    // A file gives its origins in art pixels.
    ...(origins && origin ? { origin: { x: origin.x / scaleOf(source), y: origin.y / scaleOf(source) } } : {}),
  }));
}
