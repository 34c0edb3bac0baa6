/**
 * `npm run bench:uploads`: sends projects of 5 and 50 MB, and one that is too large, to `POST /api/build` of the built studio, one and ten
 * at once. Compares each answer with the command line's output, and watches the server's memory.
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { writeBundle } from "@caravan/core/bundle";
import { readZip, sha256Hex } from "@caravan/core/codec";
import { addSources, cutSource } from "@caravan/core/edit";
import { emptyProject, type Project, type SourceId } from "@caravan/core/model";
import { coverageOf, type Pixels } from "@caravan/core/raster";
import { pngCodec } from "../packages/cli/src/png";
import { STUDIO, serveStudio } from "./serve";

const caravan = join(import.meta.dirname, "../packages/cli/bin/caravan.mjs");
const folder = mkdtempSync(join(tmpdir(), "caravan-uploads-"));
const AT_ONCE = 10;
const MB = 1024 * 1024;

/** Noise does not compress, so a project takes 4 bytes per pixel. */
function noise(side: number, seed: number): Pixels {
  const bytes = new Uint8Array(side * side * 4);
  let state = seed * 2_654_435_761;
  for (let k = 0; k < bytes.length; k++) {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    bytes[k] = k % 4 === 3 ? 255 : state >>> 24;
  }
  return { width: side, height: side, bytes };
}

/** A bundle with this many sheets, each cut into 16 frames. */
function bundleOf(sheets: number, side: number): Uint8Array {
  const pictures = new Map<string, Uint8Array>();
  let project: Project = emptyProject("uploaded");
  for (let k = 0; k < sheets; k++) {
    const pixels = noise(side, k + 1);
    const bytes = pngCodec().encode(pixels);
    const sha256 = sha256Hex(bytes);
    pictures.set(sha256, bytes);
    project = addSources(project, [{ fileName: `sheet${k}.png`, sha256, width: side, height: side }]);
    const cell = { w: side / 4, h: side / 4 };
    const id = project.sources[k]?.id as SourceId;
    const space = { x: 0, y: 0 };
    project = cutSource(project, id, { by: "cell", cell, margin: space, gap: space, keepEmpty: false }, coverageOf(pixels));
  }
  return writeBundle({ project, pictures });
}

/** What the command line makes of it. */
function builtHere(bundle: Uint8Array): Map<string, string> {
  const [upload, out] = [join(folder, "here.caravan"), join(folder, "here")];
  rmSync(out, { recursive: true, force: true });
  writeFileSync(upload, bundle);
  execFileSync(process.execPath, [caravan, "build", upload, "--out", out]);
  return new Map(readdirSync(out).map((name) => [name, sha256Hex(readFileSync(join(out, name)))]));
}

async function send(bundle: Uint8Array): Promise<{ status: number; bytes: Uint8Array; ms: number }> {
  const begun = performance.now();
  const answer = await fetch(`${STUDIO}api/build`, { method: "POST", body: bundle as BodyInit });
  const bytes = new Uint8Array(await answer.arrayBuffer());
  return { status: answer.status, bytes, ms: performance.now() - begun };
}

const server = await serveStudio();
/** The server's memory now, and at most since it began, MB. */
function memory(): { now: number; most: number } {
  const status = readFileSync(`/proc/${server.pid}/status`, "utf8");
  const read = (field: string) => Math.round(Number(new RegExp(`${field}:\\s+(\\d+)`).exec(status)?.[1] ?? 0) / 1024);
  return { now: read("VmRSS"), most: read("VmHWM") };
}

try {
  console.log(`the server at rest: ${memory().now} MB`);
  for (const [what, sheets, side] of [
    ["5 MB", 1, 1280],
    ["50 MB", 3, 2048],
    ["over the limit", 6, 2048],
  ] as const) {
    const bundle = bundleOf(sheets, side);
    const size = `${(bundle.length / MB).toFixed(1)} MB`;
    const [first] = await Promise.all([send(bundle)]);
    const all = await Promise.all(Array.from({ length: AT_ONCE }, () => send(bundle)));
    const statuses = [...new Set([first, ...all].map(({ status }) => status))].join(", ");
    const slowest = Math.max(...all.map(({ ms }) => ms));
    let verdict = new TextDecoder().decode(first.bytes).slice(0, 120);
    if (first.status === 200) {
      const wanted = builtHere(bundle);
      const right = [first, ...all].filter(({ bytes }) => {
        const files = readZip(bytes, "answer");
        return files.length === wanted.size && files.every(({ path, bytes: each }) => wanted.get(path) === sha256Hex(each));
      }).length;
      verdict = `${right} of ${AT_ONCE + 1} answers are the command line's very bytes`;
    }
    console.log(
      `${what.padEnd(15)} ${size.padStart(8)}  status ${statuses}  alone ${(first.ms / 1000).toFixed(1)} s, ten at once ${(slowest / 1000).toFixed(1)} s = ${(slowest / first.ms).toFixed(1)} ×  server at most ${memory().most} MB  ${verdict}`,
    );
  }
} finally {
  server.kill();
  rmSync(folder, { recursive: true, force: true });
}
