/**
 * Measures speed and size, as figures and as ratios to a baseline of the same run, because machines differ and are noisy. `npm run bench`
 * prints them; docs/figures.md keeps one day's run.
 */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { deflateSync, inflateSync } from "node:zlib";
import { artFrom } from "@caravan/core/art";
import { readProjectFile } from "@caravan/core/bundle";
import { cutByGrid, cutSheet, gridOf, suggestGrids } from "@caravan/core/cut";
import { addClip, addSources, cutSource, dropFrames, setStepDurations } from "@caravan/core/edit";
import { type ClipName, type Cut, emptyProject, keptRefs, type Project, projectToFile, type SourceId } from "@caravan/core/model";
import { timelineOf } from "@caravan/core/playback";
import { coverageOf } from "@caravan/core/raster";
import { accountOf } from "@caravan/core/rehearse";
import { emptyLog, rehearsalAtStart, rehearsedUntil, settingOf } from "@caravan/core/stage";
import { tilesOf } from "@caravan/core/tiles";
import { applyChanges, differenceBetween } from "@caravan/core/undo";
import { pngCodec } from "../packages/cli/src/png";
import { type Figure, median, print } from "./figures";
import { sheet } from "./subjects";

const NONE = { x: 0, y: 0 };

function pictures(): Figure[] {
  const side = 4096;
  const pixels = sheet(side, 64);
  const png = pngCodec();
  const file = png.encode(pixels);
  const touch = () => pixels.bytes.slice();
  const copy = { name: "copying its pixels", ms: median(touch) };
  const coverage = coverageOf(pixels);
  const cut: Cut = { by: "count", columns: 64, rows: 64, margin: NONE, gap: NONE, keepEmpty: false };
  const grid = gridOf({ w: side, h: side }, cut, "sheet");
  // Lower bounds that any decoder of such a file pays: unpacking as many bytes as its pixels have.
  const packed = deflateSync(pixels.bytes, { level: 1 });
  const unpack = { name: "unpacking as many bytes with zlib", ms: median(() => inflateSync(packed), 3) };
  return [
    { name: "grid cut of 4096×4096 into 4096 cells, empties found", ms: median(() => cutByGrid(coverage, grid, false)), against: copy },
    { name: "coverage of 4096×4096 (once per picture)", ms: median(() => coverageOf(pixels), 5), against: copy },
    {
      name: "PNG in, 4096×4096",
      ms: median(() => png.decode(file, "sheet"), 3),
      against: copy,
      note: `file of ${(file.length / 1e6).toFixed(1)} MB`,
    },
    { name: "PNG out, 4096×4096, indexed", ms: median(() => png.encode(pixels), 3), against: copy },
    { name: unpack.name, ms: unpack.ms, against: copy },
  ];
}

function cutting(): Figure[] {
  const pixels = sheet(8192, 64);
  const coverage = coverageOf(pixels);
  const touch = { name: "copying its coverage", ms: median(() => coverage.bits.slice()) };
  const smaller = coverageOf(sheet(4096, 64));
  return [
    {
      name: "outlines of 8192×8192, bits joined up to 12 px",
      ms: median(() => cutSheet(coverage, { by: "outlines", joinPx: 12, leastPx: 1, level: true }, "sheet"), 3),
      against: touch,
    },
    { name: "grids suggested for 4096×4096", ms: median(() => suggestGrids(smaller), 3), against: touch },
  ];
}

/** A document of 10,000 frames and 50 clips. */
function largeProject(): Project {
  const pixels = { width: 3200, height: 3200, bytes: new Uint8Array(3200 * 3200 * 4).fill(255) };
  const coverage = coverageOf(pixels);
  const cut: Cut = { by: "count", columns: 100, rows: 100, margin: NONE, gap: NONE, keepEmpty: false };
  let project = addSources(emptyProject("large"), [{ fileName: "large.png", sha256: "0".repeat(64), width: 3200, height: 3200 }]);
  project = cutSource(project, "s1" as SourceId, cut, coverage);
  const refs = keptRefs(project.sources[0] as Project["sources"][number]);
  for (let k = 0; k < 50; k++) project = addClip(project, refs.slice(k * 40, k * 40 + 40), `clip-${k}`);
  return project;
}

function document(): Figure[] {
  const project = largeProject();
  const clone = { name: "structuredClone of the document", ms: median(() => structuredClone(project), 5) };
  const refs = keptRefs(project.sources[0] as Project["sources"][number]);
  const timed = setStepDurations(project, "clip-7" as ClipName, [3], 50_000);
  const dropped = dropFrames(project, refs.slice(5000, 5002));
  const long = addClip(project, refs.slice(0, 2000), "long").clips.at(-1) as Project["clips"][number];
  const timeline = timelineOf(long);
  return [
    {
      name: "one step's time set, of 10,000 frames",
      ms: median(() => setStepDurations(project, "clip-7" as ClipName, [3], 50_000)),
      against: clone,
    },
    {
      name: "its undo entry, both ways",
      ms: median(() => [differenceBetween(project, timed), differenceBetween(timed, project)]),
      against: clone,
    },
    { name: "two of 10,000 frames dropped", ms: median(() => dropFrames(project, refs.slice(5000, 5002))), against: clone },
    {
      name: "its undo entry made and applied",
      ms: median(() => applyChanges(dropped, differenceBetween(dropped, project))),
      against: clone,
    },
    { name: "the document as its file's JSON", ms: median(() => JSON.stringify(projectToFile(project)), 5), against: clone },
    {
      name: "600 frames of a display from a clip of 2,000 steps",
      ms: median(() => Array.from({ length: 600 }, (_, k) => timeline.shownAt(k * 16_667))),
      against: clone,
    },
  ];
}

/** The demo's porter driven for ten minutes: his one drive of 20 s, thirty times over. */
function behaviours(): Figure[] {
  const project = readProjectFile(readFileSync(join(import.meta.dirname, "../examples/tamarisk-road/caravan.json")), "demo");
  const [drive] = project.drives ?? [];
  const stage = project.stages?.find(({ name }) => name === drive?.stage);
  const setting = stage && settingOf(project, stage);
  if (!drive || !setting) throw new Error("The demo has no drive.");
  const track = Array.from({ length: 30 }, (_, round) =>
    drive.track.map((entry) => ({ ...entry, at: entry.at + round * drive.length })),
  ).flat();
  const parse = { name: "JSON.parse of the track", ms: median(() => JSON.parse(JSON.stringify(track))) };
  return [
    {
      name: "account of a track of 10 minutes",
      ms: median(() => accountOf(setting.program, track, { until: 600_000_000 })),
      against: parse,
      note: `${track.length} entries`,
    },
    {
      name: "the same, asked at 60 times a second",
      ms: median(
        () => accountOf(setting.program, track, { asked: Array.from({ length: 36_000 }, (_, k) => Math.round((k * 1_000_000) / 60)) }),
        3,
      ),
      against: parse,
    },
    {
      name: "20 s on the stage: 4,800 steps of the world, with effects",
      ms: median(() => rehearsedUntil(setting, rehearsalAtStart(setting), drive.keys, 20_000_000, emptyLog()), 5),
      against: parse,
    },
  ];
}

/** 2,000 frames of 12 pieces each, looked up in a project and drawn; the tiles of one large sheet. */
function piecesAndTiles(): Figure[] {
  const parts = sheet(256, 16);
  const cut: Cut = { by: "cell", cell: { w: 16, h: 16 }, margin: NONE, gap: NONE, keepEmpty: true };
  let project = addSources(emptyProject("pieces"), [{ fileName: "parts.png", sha256: "0".repeat(64), width: 256, height: 256 }]);
  project = cutSource(project, "s1" as SourceId, cut, coverageOf(parts));
  const refs = keptRefs(project.sources[0] as Project["sources"][number]);
  const size = { w: 48, h: 48 };
  const frames = Array.from({ length: 2000 }, (_, k) => ({
    ...{ key: `a${k}`, column: k, row: 0, number: k, rect: { x: 0, y: 0, ...size }, size },
    pieces: Array.from({ length: 12 }, (_, n) => ({
      of: refs[(k * 7 + n * 5) % refs.length] as (typeof refs)[number],
      x: (n % 4) * 10 + (k % 5),
      y: Math.floor(n / 4) * 12,
    })),
  }));
  const source: Project["sources"][number] = { id: "s2" as SourceId, name: "figure", pictures: [], cut: { by: "pieces" }, frames };
  const whole: Project = { ...project, sources: [...project.sources, source] };
  const decoded = new Map([["0".repeat(64), parts]]);
  const copy = {
    name: "copying as many pixels",
    ms: median(() => Array.from({ length: 2000 }, () => new Uint8Array(48 * 48 * 4).fill(1))),
  };
  const large = sheet(4096, 64);
  const touch = { name: "copying its pixels", ms: median(() => large.bytes.slice()) };
  return [
    {
      name: "2,000 frames of 12 pieces drawn",
      ms: median(() => {
        const art = artFrom(decoded, { sources: whole.sources });
        for (const frame of source.frames) art.frame(source, frame);
      }, 5),
      against: copy,
    },
    {
      name: "tiles of 4096×4096, 8×8, flips one",
      ms: median(() => tilesOf([{ name: "sheet", pixels: large }], { w: 8, h: 8 }), 5),
      against: touch,
    },
  ];
}

for (const [title, measure] of [
  ["Pieces and tiles (baseline: copying pixels)", piecesAndTiles],
  ["Behaviours (baseline: copying the track as text)", behaviours],
  ["Pictures (baseline: copying 64 MB of pixels)", pictures],
  ["Outlines and suggestions (baseline: copying a coverage of 8 MB)", cutting],
  ["The document at 10,000 frames (baseline: structuredClone)", document],
] as const) {
  console.log(`\n${title}`);
  print(measure());
}
