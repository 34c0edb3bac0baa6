/**
 * Runs inside a worker and carries out the jobs of the table, one at a time. A job's code loads with the first job of its kind; only
 * showing pictures and saving to a file are loaded from the start, so that a person can save whatever happens to the server.
 */
import { CaravanError, whyOf } from "@caravan/core/model";
import * as Comlink from "comlink";
import * as art from "./job-code/art";
import * as files from "./job-code/files";
import type { Answer, Ask, JobName, JobRunner, OnProgress, Outcome } from "./jobs";

type Does<Name extends JobName> = (ask: Ask<Name>, onProgress: OnProgress) => Promise<Answer<Name>>;

const arriving = () => import("./job-code/importing");
const cutting = () => import("./job-code/cutting");
const delivering = () => import("./job-code/delivering");
const films = () => import("./job-code/films");
const reading = () => import("./job-code/reading");
const sweeping = () => import("./job-code/sweeping");
const tiles = () => import("./job-code/tiles");

const doers: { readonly [Name in JobName]: () => Promise<Does<Name>> } = {
  readPicture: async () => art.readPicture,
  assemble: async () => art.assemble,
  readArt: async () => (await arriving()).readArt,
  filmFacts: async () => (await films()).filmFacts,
  filmFrames: async () => (await films()).filmFrames,
  unzip: async () => (await arriving()).unzip,
  understand: async () => (await reading()).understand,
  readAs: async () => (await reading()).readAs,
  learnExample: async () => (await reading()).learnExample,
  tellExample: async () => (await reading()).tellExample,
  drawings: async () => art.drawings,
  findDrawings: async () => art.findDrawings,
  mirrorFrames: async () => art.mirrorFrames,
  findPieces: async () => (await cutting()).findPieces,
  inspect: async () => (await cutting()).inspect,
  picturesOfNobody: async () => (await sweeping()).picturesOfNobody,
  sweepPictures: async () => (await sweeping()).sweepPictures,
  suggestCuts: async () => (await cutting()).suggestCuts,
  suggestGrids: async () => (await cutting()).suggestGrids,
  suggestOutlines: async () => (await cutting()).suggestOutlines,
  countTiles: async () => (await tiles()).countTiles,
  traceOutlines: async () => (await cutting()).traceOutlines,
  nearPieces: async () => (await tiles()).nearPieces,
  partIntoTiles: async () => (await tiles()).partIntoTiles,
  deliver: async () => (await delivering()).deliver,
  zip: async () => files.zip,
  projectFile: async () => files.projectFile,
  writeBundle: async () => files.writeBundle,
  readBundle: async () => files.readBundle,
  salvageBundle: async () => files.salvageBundle,
};

/** Code not needed yet is loaded while idle: later the server may be gone. */
const REST = 4_000; // ms

setTimeout(() => {
  for (const load of [arriving, cutting, delivering, reading, sweeping, tiles, films]) load().catch(() => {});
}, REST);

const runner: JobRunner = {
  isHere: () => true,
  async run(name, ask, onProgress = () => {}) {
    let does: Does<typeof name>;
    try {
      does = await doers[name]();
    } catch {
      return { ok: false, notLoaded: true };
    }
    try {
      const answer = await does(ask, onProgress);
      const outcome = { ok: true, answer } as const;
      return Comlink.transfer(outcome, givenAway(answer));
    } catch (error) {
      return problemOf(error);
    }
  },
};

Comlink.expose(runner);

function problemOf(error: unknown): Outcome<never> {
  if (error instanceof CaravanError) {
    const { code, where, what, remedy } = error;
    return { ok: false, problem: { code, where, what, remedy } };
  }
  return { ok: false, fault: whyOf(error) };
}

/** Bitmaps and the buffers of all typed arrays in an answer, each once; arrays that view only a part of theirs are copied. */
function givenAway(answer: unknown, found = new Set<Transferable>()): Transferable[] {
  if (answer instanceof ImageBitmap) found.add(answer);
  else if (ArrayBuffer.isView(answer)) {
    if (answer.buffer instanceof ArrayBuffer && answer.byteLength === answer.buffer.byteLength) found.add(answer.buffer);
  } else if (typeof answer === "object" && answer !== null) for (const part of Object.values(answer)) givenAway(part, found);
  return [...found];
}
