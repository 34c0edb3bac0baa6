/**
 * Reads files that were handed over: opens ZIPs, stores pictures, keeps text for later recognition. Failures are noted with their reason.
 */

import { isPassedBy, onlyCameAlong, type TakenArt, type TakenItem, type TakenPicture } from "@caravan/core/intake";
import { CaravanError, naturalOrder, whyOf } from "@caravan/core/model";
import { create } from "zustand";
import { say } from "../../ui/notices";
import { listInWords, t } from "../../ui/words";
import { run } from "../../workers/client";
import type { ReadArt, StoredLayer, StoredPicture } from "../../workers/jobs";
import { keepPicture } from "../pictures";
import type { HandedFile } from "./collect";
import type { TakenText } from "./match-metadata";

/** Shown while files are being read. */
export interface Reading {
  readonly done: number;
  readonly total: number;
  readonly cancel: () => void;
}

export const useArrival = create<{ readonly arrival: Reading | null }>(() => ({ arrival: null }));

/** Files that could not be imported, each with a reason; shown until dismissed or tried again. */
export interface FailedFile {
  readonly file: File;
  readonly error: CaravanError;
  /** What it says, if it is a text. */
  readonly text?: string;
  /** Whether it belongs to sources that are there. */
  readonly isOwn?: boolean;
}

export const useFailedFiles = create<{ readonly failed: readonly FailedFile[] }>(() => ({ failed: [] }));

/** ZIPs are unpacked. What lies in folders beside the art is passed by; a hidden file that is given by itself is meant. */
export async function unpacked(files: readonly HandedFile[]): Promise<HandedFile[]> {
  const lists = await Promise.all(
    files.map(async (each): Promise<HandedFile[]> => {
      if (!each.file.name.toLowerCase().endsWith(".zip")) return isPassedBy(each.path) && each.path.includes("/") ? [] : [each];
      try {
        const { name } = each.file;
        const { files: inner, guessed } = await run("unzip", { name, blob: each.file });
        if (guessed !== null) sayGuessedNames(name, guessed);
        const folder = each.path.replace(/\.zip$/i, "");
        return inner
          .filter(({ path }) => !isPassedBy(path))
          .map(({ path, bytes }) => ({ file: new File([bytes as BlobPart], path.split("/").pop() ?? path), path: `${folder}/${path}` }));
      } catch (error) {
        noteFailed([{ file: each.file, error: asCaravanError(error, each.file.name) }]);
        return [];
      }
    }),
  );
  return lists.flat();
}

interface ReadFiles {
  readonly items: TakenItem[];
  readonly texts: TakenText[];
  readonly failed: FailedFile[];
}

export async function readAll(files: readonly HandedFile[]): Promise<ReadFiles> {
  const cancelling = new AbortController();
  const cancel = () => cancelling.abort();
  const read: ReadFiles = { items: [], texts: [], failed: [] };
  let done = 0;
  useArrival.setState({ arrival: { done, total: files.length, cancel } });
  const outcomes = await Promise.all(
    files.map(async ({ file, path, of }) => {
      try {
        const art = await run("readArt", { name: file.name, blob: file }, { signal: cancelling.signal });
        if (art.kind === "text") {
          const { text, guessed } = art;
          return { path, text, guessed, file, art: null, ...(of ? { of } : {}) };
        }
        return { path, art: await keepArt(art, file), text: null, ...(of ? { of } : {}) };
      } catch (error) {
        const problem = asCaravanError(error, file.name);
        if (problem.code !== "cancelled") read.failed.push({ file, error: problem });
        return null;
      } finally {
        done++;
        // A step of the bar for each of thousands of pictures would take longer than reading them.
        if (done % Math.ceil(files.length / 200) === 0)
          useArrival.setState(({ arrival }) => ({ arrival: arrival && { ...arrival, done } }));
      }
    }),
  );
  useArrival.setState({ arrival: null });
  for (const outcome of outcomes)
    if (outcome !== null) {
      const { path, of, art } = outcome;
      if (art) read.items.push({ path, art, ...(of?.[0] ? { of: of[0] } : {}) });
      else read.texts.push(outcome);
    }
  return read;
}

/** Stores all pictures of a file; what there is no room for waits in memory. */
export async function keepArt(art: Exclude<ReadArt, { kind: "text" }>, file: File): Promise<TakenArt> {
  const keep = async ({ picture, png }: StoredPicture): Promise<TakenPicture> => {
    // Stored from memory, so that a file changed on disk meanwhile cannot end up under its hash.
    const blob = png ?? new Blob([await file.arrayBuffer()], { type: "image/png" });
    await keepPicture(picture, blob);
    const { sha256, width, height, coverage, ground } = picture;
    return { sha256, width, height, coverage, ground };
  };
  switch (art.kind) {
    case "still":
      return { kind: "still", picture: await keep(art.picture) };
    case "animation": {
      const pictures = [];
      for (const each of art.pictures) pictures.push({ ...(await keep(each)), ms: each.ms });
      return { kind: "animation", pictures, plays: art.plays, broken: art.broken };
    }
    case "layers": {
      const all = async (layers: readonly StoredLayer[]) => {
        const kept = [];
        for (const each of layers) kept.push({ ...(await keep(each)), name: each.name, blend: each.blend });
        return kept;
      };
      const { apart } = art;
      return { ...art, layers: await all(art.layers), apart: apart && { ...apart, layers: await all(apart.layers) } };
    }
  }
}

/** Says so of an archive that does not mark its names. `letters` in words. */
function sayGuessedNames(name: string, letters: string): void {
  say({
    tone: "plain",
    text: t("{name} does not say which letters its names are in: they are read as {letters}. If they look wrong, unpack it first.", {
      name,
      letters,
    }),
  });
}

/** Says so of metadata that is used, and is not in UTF-8. `letters` in words. */
export function sayGuessed(name: string, letters: string): void {
  say({
    tone: "plain",
    text: t("{name} is not in UTF-8: its letters are read as {letters}. If names look wrong, save it in UTF-8.", { name, letters }),
  });
}

/** Notes those that someone may miss, and says which only came along with pictures. */
export function noteLeftOut(failed: readonly FailedFile[], pictures: readonly string[]): void {
  const aside = failed.filter(({ file, text, isOwn }) => !isOwn && onlyCameAlong(file.name, text ?? null, pictures));
  noteFailed(failed.filter((each) => !aside.includes(each)));
  // What is no text may be art all the same, and is more likely to be missed.
  const names = aside
    .toSorted((a, b) => Number(a.text !== undefined) - Number(b.text !== undefined) || naturalOrder(a.file.name, b.file.name))
    .map(({ file }) => file.name);
  if (aside.length > 0)
    say({ tone: "plain", text: t("Left out, being neither pictures nor metadata: {names}.", { names: listInWords(names, MOST_NAMED) }) });
}

const MOST_NAMED = 5;

export function noteFailed(failed: readonly FailedFile[]): void {
  if (failed.length > 0) useFailedFiles.setState((state) => ({ failed: [...state.failed, ...failed] }));
}

export function asCaravanError(error: unknown, where: string): CaravanError {
  if (error instanceof CaravanError) return error;
  return new CaravanError("damaged-picture", where, t("It could not be read: {why}.", { why: whyOf(error) }), t("Try again."), {
    cause: error,
  });
}
