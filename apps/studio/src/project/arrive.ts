/** Files that people drop, choose or paste: art becomes sources, metadata cuts them, `*.caravan` files become projects. */

import { lookOf } from "@caravan/core/art";
import { cutByMetadata, takeIn as takeInEdit } from "@caravan/core/edit";
import { CaravanError, naturalOrder, type Project, whyOf } from "@caravan/core/model";
import { create } from "zustand";
import { inBackground } from "../ui/in-background";
import { say, sayTrouble, sayUnlessDone } from "../ui/notices";
import { run } from "../workers/client";
import type { ReadArt, StoredLayer, StoredPicture } from "../workers/jobs";
import { type HandedFile, handed, isHidden } from "./arriving/collect";
import {
  type Choices,
  needsReview,
  type Proposal,
  proposalsFor,
  type TakenArt,
  type TakenItem,
  type TakenPicture,
  USUAL_CHOICES,
} from "./arriving/proposals";
import { type TakenText, understandAll } from "./arriving/understanding";
import { begin } from "./begun";
import { keepMetadataText } from "./metadata-texts";
import { currentProject, useOpenProject } from "./open-project";
import { keepPicture, pictureOfLook } from "./pictures";
import { importBundle, openProject, startProject } from "./projects";
import { sweepPictures } from "./sweep";
import { chooseSource, go } from "./view";

/** What a file picker offers. */
export const ART_FILES =
  "image/png,image/apng,image/gif,image/webp,image/jpeg,image/avif,image/bmp,.png,.apng,.gif,.webp,.jpg,.jpeg,.avif,.bmp,.ora,.zip,.json,.xml,.csv,.tsv,.txt,.caravan";

/** Shown while files are being read. */
export interface Reading {
  readonly done: number;
  readonly total: number;
  readonly cancel: () => void;
}

export const useArrival = create<{ readonly arrival: Reading | null }>(() => ({ arrival: null }));

/** Files that could not be taken in, each with its reason; they stay on the screen until they are dismissed or tried again. */
export interface FailedFile {
  readonly file: File;
  readonly error: CaravanError;
}

export const useFailedFiles = create<{ readonly failed: readonly FailedFile[] }>(() => ({ failed: [] }));

/** What is offered to be brought in, waiting for a word. */
export const useReview = create<{ readonly proposals: readonly Proposal[] | null }>(() => ({ proposals: null }));

/** What came in while something else was being looked over: it waits, rather than take the other's place. */
const later: (readonly Proposal[])[] = [];

function offer(proposals: readonly Proposal[]): void {
  if (useReview.getState().proposals) later.push(proposals);
  else useReview.setState({ proposals });
}

/** Ends the review that is shown; the next one that waits is shown then. */
export function endReview(): void {
  useReview.setState({ proposals: later.shift() ?? null });
}

// What was held against one project says nothing of another.
useOpenProject.subscribe((open, before) => {
  if (open.id === before.id) return;
  if (later.length > 0) say({ tone: "plain", text: "What was dropped meanwhile was not imported: drop it again." });
  later.length = 0;
  useReview.setState({ proposals: null });
});

/** Takes files in and goes to where work on them begins: a lone sheet is cut, several are looked over, anything else is reviewed. */
export async function takeInAndGo(files: readonly File[] | readonly HandedFile[]): Promise<void> {
  const before = useFailedFiles.getState().failed.length;
  const list = files.map((each) => (each instanceof File ? (handed([each])[0] as HandedFile) : each));
  await readAndPropose(list).catch(sayTrouble);
  const failed = useFailedFiles.getState().failed.slice(before);
  if (!failed[0]) return;
  const text = failed.length === 1 ? failed[0].error.message : `${failed.length} files did not come in.`;
  say({ tone: "trouble", text, action: { label: "Show at Sources", run: () => go("sources") } });
}

async function readAndPropose(files: readonly HandedFile[]): Promise<void> {
  underWay++;
  try {
    await readingAndProposing(files);
  } finally {
    underWay--;
  }
}

async function readingAndProposing(files: readonly HandedFile[]): Promise<void> {
  const bundles = files.filter(({ file }) => file.name.toLowerCase().endsWith(".caravan"));
  for (const { file } of bundles) await openFile(file);
  const work = begin();
  const rest = await unpacked(files.filter((each) => !bundles.includes(each)));
  if (rest.length === 0) return;
  // Systems hand over dropped files in any order; 2 comes before 10.
  const { items, texts } = await readAll(rest.toSorted((a, b) => naturalOrder(a.path, b.path)));
  const { found, failed } = await understandAll(texts, items);
  noteFailed(failed.map(({ file, error }) => ({ file, error: asCaravanError(error, file.name) })));
  const proposals = proposalsFor(items, found);
  if (proposals.length === 0) return;
  work.still();
  if (needsReview(proposals)) offer(proposals);
  else await bringIn(proposals, () => ({ ...USUAL_CHOICES, clear: false }));
}

/** Brings in what was chosen, as one entry of undo, and goes to where work on it begins. */
export async function bringIn(proposals: readonly Proposal[], choicesOf: (proposal: Proposal) => Choices): Promise<void> {
  underWay++;
  try {
    await bringingIn(proposals, choicesOf);
  } finally {
    underWay--;
  }
}

async function bringingIn(proposals: readonly Proposal[], choicesOf: (proposal: Proposal) => Choices): Promise<void> {
  const chosen = proposals.filter((proposal) => choicesOf(proposal).include);
  const arrivals = chosen.flatMap((proposal) => proposal.arrivals(choicesOf(proposal)));
  const recuts = chosen.flatMap(({ recut }) => (recut ? [recut] : []));
  if (arrivals.length + recuts.length === 0) return;
  if (arrivals.length > 0 && !(await leaveTheDemo(arrivals[0]?.name ?? "art"))) return;
  const work = begin();
  // Frames are found on the picture as it is once its ground is cleared.
  const ready = await Promise.all(
    arrivals.map(async (arrival) => {
      const first = arrival.pictures[0];
      if (!arrival.clearing || !arrival.cut || !first) return arrival;
      const { coverage } = await pictureOfLook(lookOf(arrival, first));
      return { ...arrival, coverages: [coverage] };
    }),
  );
  const known = new Set(currentProject().sources.map((source) => source.id));
  const change = (project: Project) => {
    let next = ready.length > 0 ? takeInEdit(project, ready) : project;
    for (const { source, reading, file, frames } of recuts) next = cutByMetadata(next, source, { by: "metadata", file, reading }, frames);
    return next;
  };
  const recut = recuts[0];
  const label = (project: Project) =>
    ready.length > 0 || !recut
      ? takeInEdit.label(project, ready)
      : cutByMetadata.label(project, recut.source, { by: "metadata", file: recut.file, reading: recut.reading }, recut.frames);
  const error = work.apply(change, label);
  if (error?.code === "other-project") throw error;
  sayUnlessDone(error);
  const added = currentProject().sources.filter((source) => !known.has(source.id));
  for (const { description, recut: cutAgain } of chosen) {
    if (!description) continue;
    const { understood, text, path } = description;
    const of = cutAgain ?? { source: added.find(({ cut }) => cut?.by === "metadata" && cut.reading === understood.reading)?.id };
    if (of.source)
      keepMetadataText(of.source, {
        ...{ text, file: path.split("/").pop() ?? path },
        ...{ paths: understood.paths, unplaced: understood.unplaced, grade: understood.grade },
      });
  }
  const first = added[0]?.id ?? recut?.source;
  if (first === undefined) return;
  if (added.length > 1) say({ tone: "good", text: `${added.length} sources came in.` });
  chooseSource(first);
  go(added.length <= 1 ? "frames" : "sources");
}

async function openFile(file: File): Promise<void> {
  try {
    if (await openProject(await importBundle(file, file.name))) say({ tone: "good", text: `Opened ${file.name} as a project of its own.` });
  } catch (error) {
    noteFailed([{ file, error: asCaravanError(error, file.name) }]);
  }
}

/** ZIPs give what is in them. */
async function unpacked(files: readonly HandedFile[]): Promise<HandedFile[]> {
  const lists = await Promise.all(
    files.map(async (each): Promise<HandedFile[]> => {
      if (!each.file.name.toLowerCase().endsWith(".zip")) return isHidden(each.path) ? [] : [each];
      try {
        const inner = await run("unzip", { name: each.file.name, blob: each.file });
        const folder = each.path.replace(/\.zip$/i, "");
        return inner
          .filter(({ path }) => !isHidden(path))
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
}

async function readAll(files: readonly HandedFile[]): Promise<ReadFiles> {
  const cancelling = new AbortController();
  const cancel = () => cancelling.abort();
  const failed: FailedFile[] = [];
  const read: ReadFiles = { items: [], texts: [] };
  let done = 0;
  useArrival.setState({ arrival: { done, total: files.length, cancel } });
  const outcomes = await Promise.all(
    files.map(async ({ file, path }) => {
      try {
        const art = await run("readArt", { name: file.name, blob: file }, { signal: cancelling.signal });
        if (art.kind === "text") return { path, text: art.text, file, art: null };
        return { path, art: await keepArt(art, file), text: null };
      } catch (error) {
        const problem = asCaravanError(error, file.name);
        if (problem.code !== "cancelled") failed.push({ file, error: problem });
        return null;
      } finally {
        done++;
        useArrival.setState(({ arrival }) => ({ arrival: arrival && { ...arrival, done } }));
      }
    }),
  );
  useArrival.setState({ arrival: null });
  noteFailed(failed);
  for (const outcome of outcomes)
    if (outcome !== null) {
      if (outcome.art) read.items.push(outcome);
      else read.texts.push(outcome);
    }
  return read;
}

/** Stores all pictures of a file; what there is no room for waits in memory. */
async function keepArt(art: Exclude<ReadArt, { kind: "text" }>, file: File): Promise<TakenArt> {
  const keep = async ({ picture, png }: StoredPicture): Promise<TakenPicture> => {
    // Kept from memory, so that a file changed on disk meanwhile cannot slip under its hash.
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
        for (const each of layers) kept.push({ ...(await keep(each)), name: each.name });
        return kept;
      };
      return { ...art, layers: await all(art.layers), apart: art.apart && (await all(art.apart)) };
    }
  }
}

/** Drops that are being read or brought in: what they stored may be in no document yet. */
let underWay = 0;

/** Frees what was stored of a drop that was refused, as far as nothing else needs it. */
export async function forgetRefused(proposals: readonly Proposal[]): Promise<void> {
  // Other art may be on its way in and be the same; then it is left for another time.
  if (underWay > 0) return;
  const hashes = hashesOf(proposals);
  for (const sha256 of hashesOf([...(useReview.getState().proposals ?? []), ...later.flat()])) hashes.delete(sha256);
  await sweepPictures(hashes);
}

function hashesOf(proposals: readonly Proposal[]): Set<string> {
  const hashes = new Set<string>();
  for (const proposal of proposals)
    for (const apart of [false, true])
      for (const { pictures } of proposal.arrivals({ ...USUAL_CHOICES, apart })) for (const { sha256 } of pictures) hashes.add(sha256);
  return hashes;
}

/** Someone who drops art of their own onto the untouched demo wants to work on it, not on the demo. */
async function leaveTheDemo(name: string): Promise<boolean> {
  if (!useOpenProject.getState().demo) return true;
  const demo = useOpenProject.getState().id as string;
  // What else came in meanwhile comes along.
  const waiting = later.splice(0);
  if (!(await startProject(name.replace(/\.[^.]*$/, "")))) return false;
  for (const proposals of waiting) offer(proposals);
  say({
    tone: "plain",
    text: "Your art is in a project of its own.",
    action: { label: "Back to the demo", run: () => inBackground(openProject(demo)) },
  });
  return true;
}

function noteFailed(failed: readonly FailedFile[]): void {
  if (failed.length > 0) useFailedFiles.setState((state) => ({ failed: [...state.failed, ...failed] }));
}

function asCaravanError(error: unknown, where: string): CaravanError {
  if (error instanceof CaravanError) return error;
  return new CaravanError("damaged-picture", where, `It could not be read: ${whyOf(error)}.`, "Try again.", { cause: error });
}
