/** Imports dropped, chosen or pasted files: art becomes sources, metadata cuts them, `*.caravan` files become projects. */

import { lookOf } from "@caravan/core/art";
import type { ArrivedAction } from "@caravan/core/edit";
import {
  type Choices,
  fileOf,
  needsReview,
  type Proposal,
  proposalsFor,
  type SeenGrid,
  sheetsOf,
  type TakenItem,
} from "@caravan/core/intake";
import { allPictures, emptyProject, naturalOrder } from "@caravan/core/model";
import { say, sayTrouble } from "../ui/notices";
import { t } from "../ui/words";
import { run } from "../workers/client";
import { type Begun, begin } from "./begun";
import { newTimesInWords } from "./changed-art/new-times";
import { bringingIn } from "./importing/add-to-project";
import { type HandedFile, handed } from "./importing/collect";
import { cutAsSaid, cutWithArt, outcomeOf } from "./importing/cut-again";
import { isFilm, takeFilm } from "./importing/film";
import { type Understanding, understandAll } from "./importing/match-metadata";
import { openProjectFile } from "./importing/project-file";
import { openProjectFolders } from "./importing/project-folder";
import { asCaravanError, noteLeftOut, readAll, sayGuessed, unpacked, useFailedFiles } from "./importing/read-files";
import { offer, offered } from "./importing/review";
import { toldBefore } from "./metadata-texts";
import { useOpenProject } from "./open-project";
import { pictureOfLook } from "./pictures";
import { startProject } from "./projects";
import { isRestored } from "./seen-art";
import { sweepPictures } from "./sweep";
import { go } from "./view";

/** The last of the drops onto the demo: the first one opens a project of its own, which the next ones are for. */
let ontoDemo: Promise<unknown> = Promise.resolve();

/** The last of what is being proposed and brought in: two drops of the same art at once are not two pictures. */
let turn: Promise<unknown> = Promise.resolve();

function inTurn<Result>(work: () => Promise<Result>): Promise<Result> {
  const next = turn.then(work);
  turn = next.catch(() => {});
  return next;
}

/** Being begun by art that came where no project can be opened; two drops at once begin one. */
let beginning: Promise<boolean> | null = null;

function beginProject(): Promise<boolean> {
  beginning ??= startProject().finally(() => {
    beginning = null;
  });
  return beginning;
}

/** What was made of files that were handed over: nothing, or something that is imported, or on which a person decides. */
interface Taken {
  /** Resolves once it is; false if it failed, or if nobody decided because another project was opened. */
  readonly done: Promise<boolean>;
}

/** Imports files and opens the stop where work on them begins: a single sheet is cut, several are reviewed, anything else too. */
export async function takeInAll(files: readonly File[] | readonly HandedFile[]): Promise<Taken | null> {
  const before = useFailedFiles.getState().failed.length;
  const list = files.map((each) => (each instanceof File ? (handed([each])[0] as HandedFile) : each));
  const work = (): Promise<Taken | null> =>
    countedWork(() => readAndPropose(list)).catch((error) => {
      sayTrouble(error);
      return null;
    });
  const working = useOpenProject.getState().demo ? ontoDemo.then(work) : work();
  if (useOpenProject.getState().demo) ontoDemo = working;
  const taken = await working;
  const failed = useFailedFiles.getState().failed.slice(before);
  if (!failed[0]) return taken;
  const text = failed.length === 1 ? failed[0].error.message : t("{count} files were not imported.", { count: failed.length });
  const show = { label: t("Show at Sources"), run: () => go("sources") };
  say({ tone: "trouble", text, ...(useOpenProject.getState().id === null ? {} : { action: show }) });
  return taken;
}

async function readAndPropose(files: readonly HandedFile[]): Promise<Taken | null> {
  const bundles = files.filter(({ file }) => file.name.toLowerCase().endsWith(".caravan"));
  for (const { file } of bundles) await openProjectFile(file);
  const before = begin();
  const loose = await unpacked(files.filter((each) => !bundles.includes(each)));
  const rest = await openProjectFolders(loose);
  if (rest.length === 0) return null;
  const isFirst = useOpenProject.getState().id === null && (await beginProject());
  // What came with a project's folder is for that project.
  const work = isFirst || rest.length < loose.length ? begin() : before;
  // Systems pass dropped files in any order; 2 comes before 10.
  const ordered = rest.toSorted((a, b) => naturalOrder(a.path, b.path));
  const { items, texts, failed } = await readAll(ordered.filter((each) => !isFilm(each)));
  for (const film of ordered.filter(isFilm)) {
    const item = await takeFilm(film);
    if (item) items.push(item);
  }
  const { found, ...understood } = await understandAll(texts, items);
  failed.push(...understood.failed.map((each) => ({ ...each, error: asCaravanError(each.error, each.file.name) })));
  for (const { path, file, guessed } of texts)
    if (guessed !== null && found.some((each) => each.path === path)) sayGuessed(file.name, guessed);
  noteLeftOut(
    failed,
    items.map(({ path }) => path),
  );
  return inTurn(() => {
    work.still();
    return propose(items, found, begin());
  });
}

/** Brings in what was read, or offers it for review. */
async function propose(items: readonly TakenItem[], found: Understanding["found"], work: Begun): Promise<Taken | null> {
  // Who drops art onto the untouched demo means a project of their own, not the demo's art; metadata alone can only be for that.
  const { sources, clips } = items.length > 0 && useOpenProject.getState().demo ? emptyProject("") : work.project;
  const plain = proposalsFor(items, found, { sources, clips }).filter((each) => !restores(each, work));
  if (plain.length === 0) return null;
  const proposals = needsReview(plain)
    ? proposalsFor(items, found, { sources, clips, grids: await gridsOf(sheetsOf(items, found), work.signal) })
    : plain;
  const complete = await withOutcomes(proposals, work);
  work.still();
  if (needsReview(proposals)) return { done: offer(complete) };
  return { done: Promise.resolve(await bringIn(proposals, ({ usual }) => ({ ...usual, clear: false }), [])) };
}

/** Art that had been missing, and came again as it was, needs no decision: it is stored by now. Says so. */
function restores({ usual, shows }: Proposal, { project }: Begun): boolean {
  const back = usual.include ? [] : shows.filter(({ sha256 }) => isRestored(sha256));
  const source = project.sources.find((each) => allPictures(each).some(({ sha256 }) => sha256 === back[0]?.sha256));
  if (source) say({ tone: "good", text: t("The art of {name} is restored.", { name: source.name }) });
  return source !== undefined;
}

/** What a metadata file would do to frames and clips of a source that is there is shown before it does it. */
async function withOutcomes(proposals: readonly Proposal[], { project }: Begun): Promise<Proposal[]> {
  return Promise.all(
    proposals.map(async (proposal) => {
      const { known, description, recut, usual } = proposal;
      const source = known && project.sources.find(({ id }) => id === known.source);
      const [picture] = source && description ? (proposal.arrivals(usual)[0]?.pictures ?? []) : [];
      const again =
        recut !== undefined
          ? cutAsSaid(recut, usual.clips)
          : source && description && picture
            ? cutWithArt(source, picture, description, await toldBefore(source))
            : null;
      if (!again) {
        if (!source || !known.isSame || proposal.kind !== "animation") return proposal;
        return { ...proposal, outcome: newTimesInWords(project, source, proposal.arrivals(usual)[0]?.pictures ?? [], fileOf(proposal.id)) };
      }
      const outcome = outcomeOf(again, project);
      if (!outcome) return proposal;
      if (recut !== undefined) return { ...proposal, outcome: outcome.words };
      const all = proposal.clips(usual).filter(({ ref }) => outcome.there.has(ref));
      return { ...proposal, outcome: outcome.words, following: { all, added: outcome.added } };
    }),
  );
}

/** Nobody cuts more sheets than this from a list; they are cut one by one. */
const MOST_GRIDS = 48;

/** The grids that sheets suggest, where their grounds are seen through. */
async function gridsOf(sheets: readonly TakenItem[], signal: AbortSignal): Promise<Map<string, SeenGrid>> {
  const grids = new Map<string, SeenGrid>();
  await Promise.all(
    sheets.slice(0, MOST_GRIDS).map(async ({ path, art }) => {
      if (art.kind !== "still") return;
      const { ground, sha256 } = art.picture;
      const { coverage } = ground ? await pictureOfLook(lookOf({ clearing: ground.clearing }, { sha256 })) : art.picture;
      const [suggestion] = await run("suggestGrids", { coverage, whole: art.picture.coverage }, { signal });
      if (suggestion) grids.set(path, { suggestion, coverage });
    }),
  );
  return grids;
}

/**
 * Imports the chosen things, with the actions of their clips, as one undo entry, and opens the stop where work on them begins. Resolves when new
 * art of sources was reviewed, too; true if nothing failed.
 */
export async function bringIn(
  proposals: readonly Proposal[],
  choicesOf: (proposal: Proposal) => Choices,
  actions: readonly ArrivedAction[],
): Promise<boolean> {
  const { reviewed } = await countedWork(() => bringingIn(proposals, choicesOf, actions));
  return reviewed;
}

/** Drops that are being read or brought in: what they stored may be in no document yet. */
let underWay = 0;

async function countedWork<Result>(work: () => Promise<Result>): Promise<Result> {
  underWay++;
  try {
    return await work();
  } finally {
    underWay--;
  }
}

/** Deletes the stored art of a cancelled drop, unless something else needs it. */
export async function forgetRefused(proposals: readonly Proposal[]): Promise<void> {
  // Other art may be on its way in and be the same; then it is left for another time.
  if (underWay > 0) return;
  const hashes = hashesOf(proposals);
  for (const sha256 of hashesOf(offered())) hashes.delete(sha256);
  await sweepPictures(hashes);
}

function hashesOf(proposals: readonly Proposal[]): Set<string> {
  const hashes = new Set<string>();
  for (const proposal of proposals)
    for (const apart of [false, true])
      for (const arrival of proposal.arrivals({ ...proposal.usual, apart, layers: false }))
        for (const { sha256 } of arrival.pictures) hashes.add(sha256);
  return hashes;
}
