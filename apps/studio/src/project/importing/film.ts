/** Imports films. Range, rate and size are chosen before anything is decoded; then the frames are imported like those of an animation. */
import type { TakenItem, TakenPicture } from "@caravan/core/intake";
import { MOST_PICTURES } from "@caravan/core/model";
import { create } from "zustand";
import { run } from "../../workers/client";
import type { FilmFacts } from "../../workers/jobs";
import { keepPicture } from "../pictures";
import type { HandedFile } from "./collect";
import { asCaravanError, noteFailed, useArrival } from "./read-files";

export function isFilm({ path }: HandedFile): boolean {
  return /\.(webm|mkv|mp4|m4v|mov)$/i.test(path);
}

/** What a person wants of a film: frames by their place, counted from 0. */
export interface FilmChoice {
  readonly first: number;
  readonly last: number;
  /** Every so manieth frame. */
  readonly every: number;
  /** How many times smaller each side becomes. */
  readonly reduction: number;
}

export interface AskedFilm {
  readonly file: File;
  readonly facts: FilmFacts;
  /** The answer: what to take; null for nothing. */
  readonly decide: (choice: FilmChoice | null) => void;
}

/** The film being asked about. */
export const useFilm = create<{ readonly film: AskedFilm | null }>(() => ({ film: null }));

/** The indexes of the chosen frames. */
export function framesChosen({ first, last, every }: FilmChoice): number[] {
  return Array.from({ length: Math.max(0, Math.floor((last - first) / every) + 1) }, (_, k) => first + k * every);
}

/** The memory of the frames as pictures, in bytes. */
export function bytesOfFrames({ width, height }: FilmFacts, choice: FilmChoice): number {
  return (
    framesChosen(choice).length * Math.max(1, Math.round(width / choice.reduction)) * Math.max(1, Math.round(height / choice.reduction)) * 4
  );
}

/**
 * Asks about a film, then reads the chosen part. Null if nothing is chosen, if it was stopped, or if it cannot be read, which is then
 * noted.
 */
export async function takeFilm({ file, path }: HandedFile): Promise<TakenItem | null> {
  try {
    const facts = await run("filmFacts", { name: file.name, blob: file });
    while (useFilm.getState().film) await new Promise<void>((next) => untilDecided(next));
    const choice = await new Promise<FilmChoice | null>((decide) => {
      useFilm.setState({ film: { file, facts, decide } });
    });
    useFilm.setState({ film: null });
    return choice && (await readFrames(file, path, facts, choice));
  } catch (error) {
    const problem = asCaravanError(error, file.name);
    if (problem.code !== "cancelled") noteFailed([{ file, error: problem }]);
    return null;
  } finally {
    useArrival.setState({ arrival: null });
  }
}

function untilDecided(next: () => void): void {
  const stop = useFilm.subscribe(({ film }) => {
    if (film) return;
    stop();
    next();
  });
}

async function readFrames(file: File, path: string, facts: FilmFacts, choice: FilmChoice): Promise<TakenItem> {
  const places = framesChosen(choice).slice(0, MOST_PICTURES);
  const cancelling = new AbortController();
  const tell = (done: number) =>
    useArrival.setState({ arrival: { done: Math.round(done * places.length), total: places.length, cancel: () => cancelling.abort() } });
  tell(0);
  const starts = places.map((place) => facts.starts[place] as number);
  const ask = { name: file.name, blob: file, starts, reduction: choice.reduction };
  const stored = await run("filmFrames", ask, { signal: cancelling.signal, onProgress: tell });
  const pictures: (TakenPicture & { ms: number })[] = [];
  for (const [k, { picture, png }] of stored.entries()) {
    if (png) await keepPicture(picture, png);
    const { sha256, width, height, coverage, ground } = picture;
    pictures.push({ sha256, width, height, coverage, ground, ms: shownFor(facts, places, k, choice) });
  }
  return { path, art: { kind: "animation", pictures, plays: 0, broken: [] } };
}

/** From the start of a frame to the start of the next chosen one: frames between them are skipped, their time is kept. */
function shownFor({ times }: FilmFacts, places: readonly number[], k: number, { last }: FilmChoice): number {
  const from = times[places[k] as number] as number;
  const next = places[k + 1] ?? last + 1;
  const to = times[Math.min(next, times.length - 1)] as number;
  return Math.max(1, to - from) / 1000;
}
