/** Reviews changed art of a source: shows what it would do to frames and clips before it is used. */

import {
  type ChangedPicture,
  hasOtherTimes,
  isSameArt,
  refreshSource,
  sourceWithArt,
  takeResizedArt,
  withOtherStills,
} from "@caravan/core/edit";
import {
  allPictures,
  CaravanError,
  type Frame,
  frameRef,
  isNumberedByFiles,
  naturalOrder,
  type Source,
  type SourceId,
  sourceById,
} from "@caravan/core/model";
import { findSeries, numberIn } from "@caravan/core/series";
import { say, sayTrouble } from "../../ui/notices";
import { t } from "../../ui/words";
import { type Begun, begin } from "../begun";
import { sayClipNews } from "../clip-news";
import { useOpenProject } from "../open-project";
import { useSeenArt } from "../seen-art";
import { coveragesOf } from "./coverages";
import { takeNewTimes } from "./new-times";
import { readInOrder, readNewArt } from "./read-pictures";
import { type ChangedArt, useChangedArt } from "./reviewing";
import { type WayIn, waysIn } from "./ways";

/** A person decided and that is done, it was refused with a message, or its project was left. */
type Ended = "decided" | "failed" | "left";

/** Called when the review that is shown has ended. */
let whenEnded: (how: Ended) => void = () => {};

/** Ends the review: what the person decided is decided. */
export function endChangedArt(how: Ended = "decided"): void {
  useChangedArt.setState({ art: null });
  whenEnded(how);
  whenEnded = () => {};
}

// A review of another project's art has no meaning any more.
useOpenProject.subscribe((open, before) => {
  if (open.id !== before.id && useChangedArt.getState().art) endChangedArt("left");
});

/**
 * Reads files as a source's new pictures and shows what they would change, after any current review. Resolves when the user has decided and
 * that is done; false if it failed, or was dropped with its project. Throws what is wrong with the files.
 */
export async function reviewChangedArt(id: SourceId, files: readonly File[]): Promise<boolean> {
  const work = begin();
  // Asked before they are read: a picture that had been missing is there again once it is stored.
  const wasGone = isGone(work, id);
  const source = sourceById(work.project, id);
  const { plain, layers } = withLayersApart(source, files);
  const { series, single } = findSeries(plain, ({ name }) => name);
  const numbers = new Map(
    single.length === 0 && series.length === 1
      ? series[0]?.members.map(({ file, number }) => [file, number])
      : single.flatMap((file) => numberedFile(source, file)),
  );
  const read = await Promise.all(
    plain
      .toSorted((a, b) => naturalOrder(a.name, b.name))
      .map(async (file) =>
        (await readNewArt(source, file)).map((picture): ChangedPicture => ({ ...picture, ...numbered(numbers.get(file)) })),
      ),
  );
  const own: readonly ChangedPicture[] = read.length > 0 ? read.flat() : source.pictures;
  const over = await Promise.all([...layers].map(async ([name, each]) => [name, await readInOrder(each)] as const));
  const art = own.map(
    (picture, k): ChangedPicture =>
      over.length === 0
        ? picture
        : {
            ...picture,
            layers: [
              ...(picture.layers ?? []).filter(({ name }) => !over.some(([other]) => other === name)),
              ...over.flatMap(([name, pictures]) => (pictures[k] ? [{ name, ...pictures[k] }] : [])),
            ],
          },
  );
  return (await reviewOf(work, id, art, files[0]?.name ?? source.name, wasGone)) === "decided";
}

/** The files that are called as a layer of the source, by that layer, and all others. */
function withLayersApart({ layers = [] }: Source, files: readonly File[]): { plain: File[]; layers: Map<string, File[]> } {
  const plain: File[] = [];
  const found = new Map<string, File[]>();
  for (const file of files) {
    const words = inWords(file.name.replace(/\.[^.]*$/, ""));
    const layer = layers.find(({ name }) => words.includes(inWords(name), 1));
    if (layer) found.set(layer.name, [...(found.get(layer.name) ?? []), file]);
    else plain.push(file);
  }
  return { plain, layers: found };
}

/** " camp light 0 ", so that whole words can be found in it. */
function inWords(name: string): string {
  return ` ${name.toLowerCase().replace(/[\s_.-]+/g, " ")} `;
}

/** Reviews new art of layers; their pictures are stored already. */
export async function reviewLayerArt(work: Begun, id: SourceId, pictures: readonly ChangedPicture[]): Promise<void> {
  await reviewOf(work, id, pictures, sourceById(work.project, id).name, isGone(work, id));
}

/** A file with its number, if it is called as a still of the series. */
function numberedFile(source: Source, file: File): [File, number][] {
  const number = isNumberedByFiles(source) ? numberIn(source.name, file.name) : null;
  return number === null ? [] : [[file, number]];
}

function numbered(number: number | undefined): { number?: number } {
  return number === undefined ? {} : { number };
}

/**
 * Reviews new art of several sources, one source after the other; pictures are already stored. Once the user has accepted all of it,
 * sources that would lose no frames are updated without further questions. True if nothing failed.
 */
export async function reviewNewArt(
  list: readonly { readonly id: SourceId; readonly pictures: readonly ChangedPicture[]; readonly file: string }[],
): Promise<boolean> {
  let isDone = true;
  for (const [k, { id, pictures, file }] of list.entries()) {
    if (!useOpenProject.getState().project.sources.some((source) => source.id === id)) continue;
    useChangedArt.setState({ more: list.length - 1 - k });
    // A problem with one does not affect the others.
    const ended = await reviewOf(begin(), id, pictures, file, false).catch((error): Ended => {
      sayTrouble(error);
      return "failed";
    });
    isDone &&= ended === "decided";
    if (ended === "left") break;
  }
  useChangedArt.setState({ more: 0, all: false });
  return isDone;
}

function isGone({ project }: Begun, id: SourceId): boolean {
  const { missing } = useSeenArt.getState();
  return allPictures(sourceById(project, id)).some(({ sha256 }) => missing.has(sha256));
}

async function reviewOf(work: Begun, id: SourceId, stored: readonly ChangedPicture[], file: string, wasGone: boolean): Promise<Ended> {
  const before = sourceById(work.project, id);
  if (before.pictures.length === 1 && stored.length !== 1)
    throw new CaravanError(
      "bad-call",
      before.name,
      t("It has one picture, and {count} were given.", { count: stored.length }),
      t("Choose one, or add a series as a source."),
    );
  const pictures = stored.map(
    ({ sha256, width, height, number, duration, layers }): ChangedPicture => ({
      ...{ sha256, width, height },
      ...numbered(number),
      ...(duration === undefined ? {} : { duration }),
      ...(layers ? { layers } : {}),
    }),
  );
  const coverages = await coveragesOf(sourceWithArt(work.project, before, pictures));
  const together = withOtherStills(before, pictures);
  const same = isSameArt(before, together ?? pictures);
  if (same && wasGone) {
    say({ tone: "good", text: t("The art of {name} is restored.", { name: before.name }) });
    return "decided";
  }
  if (same && hasOtherTimes(before, pictures)) {
    takeNewTimes(work, before, pictures, file);
    return "decided";
  }
  // Several that are the same may be meant as all that there are.
  if (same && (!together || pictures.length === 1))
    throw new CaravanError("bad-call", before.name, t("This is the art that it already has."), t("Nothing needs to change."));
  const ways = await waysIn(before, pictures, coverages, work);
  while (useChangedArt.getState().art) await new Promise<void>((next) => untilClosed(next));
  work.stillHas(before);
  const art: ChangedArt = { before, file, ways, work };
  if (useChangedArt.getState().all && ways[0].changes.gone.length === 0) {
    const error = await takeInChangedArt(art, ways[0]);
    if (error) throw error;
    return "decided";
  }
  useChangedArt.setState({ art });
  return new Promise((ended) => {
    whenEnded = ended;
  });
}

/** Art that is being taken in: asked for twice, it is taken in once, and does not end the review after it. */
const underWay = new WeakSet<ChangedArt>();

/** Applies the reviewed art in one of its ways. Clips keep their steps; removed frames show as missing until someone decides. */
export async function takeInChangedArt(art: ChangedArt, way: WayIn): Promise<CaravanError | null> {
  if (underWay.has(art)) return null;
  underWay.add(art);
  try {
    return await takeIn(art, way);
  } catch (error) {
    underWay.delete(art);
    throw error;
  }
}

async function takeIn({ before, file, work }: ChangedArt, { pictures, drawings, grid, times, news }: WayIn): Promise<CaravanError | null> {
  const coverages = await coveragesOf(sourceWithArt(work.project, before, pictures));
  work.stillShows(before.frames.map((frame) => ({ source: before, frame })));
  const error =
    times === null
      ? work.edit(refreshSource, before.id, pictures, coverages, drawings ?? undefined, grid ?? undefined)
      : work.edit(takeResizedArt, before.id, pictures, coverages, times);
  endChangedArt(error ? "failed" : "decided");
  if (!error) sayClipNews(news, { name: file, kind: "animation" });
  return error;
}

function untilClosed(next: () => void): void {
  const stop = useChangedArt.subscribe(({ art }) => {
    if (art) return;
    stop();
    next();
  });
}

/** The first refs of a list and how many there are. */
export function framesByRef(source: Source, refs: readonly string[]): Frame[] {
  const wanted = new Set(refs);
  return source.frames.filter((frame) => wanted.has(frameRef(source, frame)));
}
