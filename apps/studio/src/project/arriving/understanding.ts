/** Metadata files held against the pictures that came with them, or against a source that is there already. */
import { sheetLook } from "@caravan/core/art";
import type { TakenDescription, TakenItem } from "@caravan/core/intake";
import { CaravanError } from "@caravan/core/model";
import type { Coverage } from "@caravan/core/raster";
import { run } from "../../workers/client";
import { currentProject } from "../open-project";
import { pictureOfLook } from "../pictures";
import { chosenSource, useView } from "../view";

/** A text file that may describe pictures. */
export interface TakenText {
  readonly path: string;
  readonly text: string;
  readonly file: File;
}

export interface Understanding {
  readonly found: readonly TakenDescription[];
  readonly failed: readonly { readonly file: File; readonly error: unknown }[];
}

/** Holds every metadata file against the picture that it most likely describes. */
export async function understandAll(texts: readonly TakenText[], items: readonly TakenItem[]): Promise<Understanding> {
  const found: TakenDescription[] = [];
  const failed: Understanding["failed"][number][] = [];
  for (const { path, text, file } of texts) {
    try {
      found.push(...(await understandOne(path, text, items)));
    } catch (error) {
      failed.push({ file, error });
    }
  }
  return { found, failed };
}

/** A file may describe several of the pictures that came with it; else it is held against the one that it most likely describes. */
async function understandOne(path: string, text: string, items: readonly TakenItem[]): Promise<TakenDescription[]> {
  const known = currentProject().readings;
  const stem = (each: string) => each.replace(/\.[^./]*$/, "").toLowerCase();
  const name = (each: string) => each.split("/").pop() ?? each;
  const stills = items.flatMap(({ path: picture, art }) => (art.kind === "still" ? [{ picture, coverage: art.picture.coverage }] : []));
  const named = stills.filter(({ picture }) => text.includes(name(picture)));
  if (named.length > 1) return understandSeveral(path, text, named);
  const fitting =
    stills.find(({ picture }) => stem(picture) === stem(path)) ??
    stills.find(({ picture }) => stem(name(picture)) === stem(name(path))) ??
    named[0] ??
    (stills.length === 1 ? stills[0] : undefined);
  if (fitting) {
    const { picture, coverage } = fitting;
    const understood = await run("understand", { text, where: name(path), picture: name(picture), coverage, known });
    return [{ path, of: { picture }, understood, text }];
  }
  const { sources } = currentProject();
  const source =
    sources.find((each) => stem(each.name) === stem(name(path))) ??
    sources.find((each) => text.includes(`${each.name}.`)) ??
    chosenSource(currentProject(), useView.getState());
  if (!source)
    throw new CaravanError("bad-metadata", name(path), "It describes a picture, and there is none.", "Drop it together with its picture.");
  const { coverage } = await pictureOfLook(sheetLook(source));
  const understood = await run("understand", { text, where: name(path), picture: `${source.name}.png`, coverage, known });
  return [{ path, of: { source: source.id, name: source.name }, understood, text }];
}

/** Of each of the pictures what the file says of it; a picture that it only mentions is left to be a plain sheet. */
async function understandSeveral(
  path: string,
  text: string,
  pictures: readonly { readonly picture: string; readonly coverage: Coverage }[],
): Promise<TakenDescription[]> {
  const { readings: known } = currentProject();
  const name = (each: string) => each.split("/").pop() ?? each;
  const tries = await Promise.allSettled(
    pictures.map(async ({ picture, coverage }): Promise<TakenDescription> => {
      const understood = await run("understand", { text, where: name(path), picture: name(picture), coverage, known });
      return { path, of: { picture }, understood, text };
    }),
  );
  const found = tries.flatMap((each) => (each.status === "fulfilled" && each.value.understood.frames.length > 0 ? [each.value] : []));
  const [first] = tries;
  if (found.length === 0 && first?.status === "rejected") throw first.reason;
  // What stands on a picture that came along is no misfit of the others.
  const along = found.map(({ of }) => ("picture" in of ? name(of.picture) : ""));
  return found.map((each) => ({
    ...each,
    understood: {
      ...each.understood,
      unplaced: each.understood.unplaced.filter(({ why }) => !along.some((picture) => why === `It belongs to the picture ${picture}.`)),
    },
  }));
}
