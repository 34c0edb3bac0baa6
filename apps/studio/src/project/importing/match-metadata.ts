/** Matches metadata files with the pictures that came with them, or with an existing source. */

import { sheetLook } from "@caravan/core/art";
import {
  describedBy,
  fileOf,
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
  readonly file: File;
  /** The sources that it describes, whose art came with it, if that is known otherwise than by names. */
  readonly of?: readonly SourceId[];
}

export interface Understanding {
  readonly found: readonly TakenDescription[];
  readonly failed: readonly { readonly file: File; readonly error: unknown }[];
}

/** Holds every metadata file against the picture that it most likely describes. */
export async function understandAll(texts: readonly TakenText[], items: readonly TakenItem[]): Promise<Understanding> {
  const found: TakenDescription[] = [];
  const failed: Understanding["failed"][number][] = [];
  for (const { path, text, file, of } of texts) {
    try {
      found.push(
        ...(await understandOne(
          path,
          text,
          of ? items.filter((each) => each.of !== undefined && of.includes(each.of)) : items,
          of !== undefined,
        )),
      );
    } catch (error) {
      failed.push({ file, error });
    }
  }
  return { found, failed };
}

/** A file may describe several of the pictures dropped with it; a lone one is matched to sources that are there. */
async function understandOne(path: string, text: string, items: readonly TakenItem[], ofAll = false): Promise<TakenDescription[]> {
  const stills = new Map(
    items.flatMap(({ path: picture, art }) => (art.kind === "still" ? [[picture, art.picture.coverage] as const] : [])),
  );
  const pictures = ofAll ? [...stills.keys()] : describedBy(path, text, [...stills.keys()]);
  const { readings: known, sources } = currentProject();
  const ask = async (picture: string): Promise<TakenDescription> => {
    const coverage = stills.get(picture) as Coverage;
    const of = items.find((each) => each.path === picture)?.of;
    const source = of === undefined ? undefined : sources.find(({ id }) => id === of);
    const called = source ? pictureCalled(source, text) : fileOf(picture);
    const understood = await run("understand", { text, where: fileOf(path), picture: called, coverage, known });
    return { path, of: { picture }, understood, text };
  };
  if (pictures.length > 1) return understandSeveral(pictures, ask);
  if (pictures[0] !== undefined) return [await ask(pictures[0])];
  const described = describedSources(path, text);
  if (described.length === 0)
    throw new CaravanError(
      "bad-metadata",
      fileOf(path),
      t("It describes a picture, and there is none."),
      t("Drop it together with its picture."),
    );
  const askOf = async (source: Source): Promise<TakenDescription> => {
    const { coverage } = await pictureOfLook(sheetLook(source));
    const understood = await run("understand", { text, where: fileOf(path), picture: pictureCalled(source, text), coverage, known });
    return { path, of: { source: source.id, name: source.name, before: await toldBefore(source) }, understood, text };
  };
  return Promise.all(described.map(askOf));
}

/** The sources that a file describes, dropped without pictures: those that it cut before, or else the one that it most likely is about. */
function describedSources(path: string, text: string): readonly Source[] {
  const project = currentProject();
  return sourcesDescribedBy(path, text, project.sources, chosenSource(project, useView.getState()));
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
