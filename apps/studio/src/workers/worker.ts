/** Runs inside a worker: carries out the jobs of the table, one at a time. */
import { readBundle, writeBundle } from "@caravan/core/bundle";
import { createPngCodec, type PngCodec, sha256Hex, type WasmModule, writeZip } from "@caravan/core/codec";
import { deliver } from "@caravan/core/deliver";
import { CaravanError, type SourceId } from "@caravan/core/model";
import { coverageOf, factsOf, type Pixels } from "@caravan/core/raster";
import * as Comlink from "comlink";
import type { JobName, JobRunner, Jobs, OnProgress, Outcome, Overview } from "./jobs";

type Doers = { [Name in JobName]: (ask: Jobs[Name]["ask"], onProgress: OnProgress) => Promise<Jobs[Name]["answer"]> };

const doers: Doers = {
  async readPicture({ name, blob }) {
    const png = await pngCodec();
    const bytes = await bytesOf(blob);
    const pixels = png.decode(bytes, name);
    const { width, height } = pixels;
    const known = { sha256: sha256Hex(bytes), width, height, coverage: coverageOf(pixels), facts: factsOf(pixels) };
    // Made here and given away: on the screen's own thread even this would be felt with a large sheet.
    const bitmap = await createImageBitmap(blob, { colorSpaceConversion: "none" });
    return { ...known, bitmap, overview: await overviewOf(blob, width, height) };
  },

  async deliver({ project, delivery, pictures }, onProgress) {
    const png = await pngCodec();
    const decoded = new Map<SourceId, Pixels>();
    for (const [id, blob] of pictures) {
      const file = project.sources.find((source) => source.id === id)?.file ?? id;
      decoded.set(id, png.decode(await bytesOf(blob), file));
      onProgress((0.3 * decoded.size) / pictures.length);
    }
    const { files, pages, proof } = deliver(project, delivery, decoded, png, (done) => onProgress(0.3 + 0.7 * done));
    return { files, pages, proof };
  },

  async zip({ files }) {
    return writeZip(files);
  },

  async writeBundle({ project, pictures }) {
    const bytes = await Promise.all(pictures.map(async ([sha256, blob]) => [sha256, await bytesOf(blob)] as const));
    return writeBundle({ project, pictures: new Map(bytes) });
  },

  async readBundle({ name, blob }) {
    const { project, pictures } = readBundle(await bytesOf(blob), name);
    // A picture that does not open would leave a project that cannot be shown: better to refuse the file now.
    const png = await pngCodec();
    for (const source of project.sources) png.decode(pictures.get(source.sha256) as Uint8Array, `${name}, ${source.file}`);
    return { project, pictures: [...pictures] };
  },
};

const runner: JobRunner = {
  async run(name, ask, onProgress = () => {}) {
    try {
      const answer = await doers[name](ask, onProgress);
      const outcome = { ok: true, answer } as const;
      return Comlink.transfer(outcome, givenAway(answer));
    } catch (error) {
      return problemOf(error);
    }
  },
};

Comlink.expose(runner);

let codec: Promise<PngCodec> | null = null;

function pngCodec(): Promise<PngCodec> {
  codec ??= WebAssembly.compileStreaming(fetch(new URL("@jsquash/png/codec/pkg/squoosh_png_bg.wasm", import.meta.url))).then((module) =>
    createPngCodec(module as unknown as WasmModule),
  );
  return codec;
}

async function bytesOf(blob: Blob): Promise<Uint8Array> {
  return new Uint8Array(await blob.arrayBuffer());
}

function problemOf(error: unknown): Outcome<never> {
  if (error instanceof CaravanError) {
    const { code, where, what, remedy } = error;
    return { ok: false, problem: { code, where, what, remedy } };
  }
  return { ok: false, fault: error instanceof Error ? error.message : String(error) };
}

/** Longest side of a picture that is drawn reduced without an overview, and of the overview itself. */
const OVERVIEW_SIDE = 1024; // px

async function overviewOf(blob: Blob, width: number, height: number): Promise<Overview | null> {
  const reduction = 2 ** Math.ceil(Math.log2(Math.max(width, height) / OVERVIEW_SIDE));
  if (reduction < 2) return null;
  const size = { resizeWidth: Math.max(1, Math.round(width / reduction)), resizeHeight: Math.max(1, Math.round(height / reduction)) };
  return { bitmap: await createImageBitmap(blob, { ...size, resizeQuality: "medium", colorSpaceConversion: "none" }), reduction };
}

/** Bitmaps and the buffers of all typed arrays in an answer, each once; arrays that view only a part of theirs are copied. */
function givenAway(answer: unknown, found = new Set<Transferable>()): Transferable[] {
  if (answer instanceof ImageBitmap) found.add(answer);
  else if (ArrayBuffer.isView(answer)) {
    if (answer.buffer instanceof ArrayBuffer && answer.byteLength === answer.buffer.byteLength) found.add(answer.buffer);
  } else if (typeof answer === "object" && answer !== null) for (const part of Object.values(answer)) givenAway(part, found);
  return [...found];
}
