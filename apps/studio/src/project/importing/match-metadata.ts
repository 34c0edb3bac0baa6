/** Matches metadata files with the pictures that came with them, or with an existing source. */

import { sheetLook } from "@caravan/core/art";
import {
  describedBy,
  fileOf,
  MOST_TRIED,
  onlyCameAlong,
  pictureCalled,
  sourcesDescribedBy,
  type TakenDescription,
  type TakenItem,
  withoutLayers,
  withoutOthersRecords,
} from "@caravan/core/intake";
import { CaravanError, type Source, type SourceId } from "@caravan/core/model";
import type { Coverage } from "@caravan/core/raster";
import { t } from "../../ui/words";
import { run } from "../../workers/client";
import { toldBefore } from "../metadata-texts";
import { currentProject } from "../open-project";
import { pictureOfLook } from "../pictures";
import { chosenSource, useView } from "../view";

/** A text file that may describe pictures. */
export interface TakenText {
  readonly path: string;
  readonly text: string;
  /** Whose letters it was taken for, in words, if nothing in it says so. */
  readonly guessed: string | null;
  readonly file: File;
  /** The sources that it describes, whose art came with it, if that is known otherwise than by names. */
  readonly of?: readonly SourceId[];
}

export interface Understanding {
  readonly found: readonly TakenDescription[];
  readonly failed: readonly { readonly file: File; readonly text: string; readonly isOwn: boolean; readonly error: unknown }[];
}

/** Holds every metadata file against the picture that it most likely describes. */
export async function understandAll(texts: readonly TakenText[], items: readonly TakenItem[]): Promise<Understanding> {
  const found: TakenDescription[] = [];
  const failed: Understanding["failed"][number][] = [];
  const pictures = items.map(({ path }) => path);
  for (const { path, text, file, of } of texts) {
    try {
      if (texts.length > MOST_TRIED && !of && onlyCameAlong(path, text, pictures)) throw unrelated(path);
      found.push(...(of ? await understandOf(of, path, text, items) : await understandOne(path, text, items)));
    } catch (error) {
      failed.push({ file, text, isOwn: of !== undefined, error });
    }
  }
  return { found, failed };
}

/** A file may describe several of the pictures dropped with it; a lone one is matched to sources that are there. */
async function understandOne(path: string, text: string, items: readonly TakenItem[]): Promise<TakenDescription[]> {
  const stills = new Map(
    items.flatMap(({ path: picture, art }) => (art.kind === "still" ? [[picture, art.picture.coverage] as const] : [])),
  );
  const pictures = describedBy(path, text, [...stills.keys()]);
  const ask = (picture: string) => understandFor(path, text, picture, fileOf(picture), stills.get(picture) as Coverage);
  if (pictures.length > 1) return understandSeveral(pictures, ask);
  if (pictures[0] !== undefined) return [await ask(pictures[0])];
  const described = describedSources(path, text, items.length === 0);
  if (described.length === 0) throw unrelated(path);
  return Promise.all(described.map((source) => understandAlone(path, text, source)));
}

/** For sources that are known to be described by it, with the pictures that came along. */
async function understandOf(of: readonly SourceId[], path: string, text: string, items: readonly TakenItem[]): Promise<TakenDescription[]> {
  const sources = currentProject().sources.filter(({ id }) => of.includes(id));
  return Promise.all(
    sources.map((source) => {
      const item = items.find((each) => each.of === source.id);
      if (item?.art.kind !== "still") return understandAlone(path, text, source);
      return understandFor(path, text, item.path, pictureCalled(source, text), item.art.picture.coverage);
    }),
  );
}

/** What it says of a picture that came along, which it calls so. */
async function understandFor(path: string, text: string, picture: string, called: string, coverage: Coverage): Promise<TakenDescription> {
  const { readings: known } = currentProject();
  const understood = await run("understand", { text, where: fileOf(path), picture: called, coverage, known });
  return { path, of: { picture }, understood, text };
}

/** What it says of a source that is there. */
async function understandAlone(path: string, text: string, source: Source): Promise<TakenDescription> {
  const { readings: known } = currentProject();
  const { coverage } = await pictureOfLook(sheetLook(source));
  const understood = await run("understand", { text, where: fileOf(path), picture: pictureCalled(source, text), coverage, known });
  return { path, of: { source: source.id, name: source.name, before: await toldBefore(source) }, understood, text };
}

/**
 * The sources that a file describes, which came with none of their pictures: those that it cut before, or else the one that it most likely
 * is about. Only one that came alone may be about what is chosen.
 */
function describedSources(path: string, text: string, isAlone: boolean): readonly Source[] {
  const project = currentProject();
  return sourcesDescribedBy(path, text, project.sources, isAlone ? chosenSource(project, useView.getState()) : null);
}

function unrelated(path: string): CaravanError {
  return new CaravanError(
    "bad-metadata",
    fileOf(path),
    t("It names no picture that is here, and is called like none."),
    t("Drop it together with its picture, or by itself while its sheet is chosen."),
  );
}

/** Of each of the pictures what the file says of it; a picture that it only mentions is left to be a plain sheet. */
async function understandSeveral(
  pictures: readonly string[],
  ask: (picture: string) => Promise<TakenDescription>,
): Promise<TakenDescription[]> {
  const tries = await Promise.allSettled(pictures.map(ask));
  const found = withoutLayers(
    tries.flatMap((each) => (each.status === "fulfilled" && each.value.understood.frames.length > 0 ? [each.value] : [])),
  );
  const [first] = tries;
  if (found.length === 0 && first?.status === "rejected") throw first.reason;
  // Records on a picture of the same drop are not misfits of the others.
  const along = found.flatMap(({ of }) => ("picture" in of ? [of.picture] : []));
  return found.map((each) => ({ ...each, understood: withoutOthersRecords(each.understood, along) }));
}
