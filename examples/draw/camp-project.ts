/** The raw files brought into the demo project as the studio brings them in: recognised, cleared, cut, with their clips. */

import { type NamedFile, readGif, readOpenRaster, sha256Hex, textFromUtf8 } from "@caravan/core/codec";
import { type Arrival, addClip, setClipRules, setClipTotal, setSourceOrigin, takeIn } from "@caravan/core/edit";
import { cutByFile } from "@caravan/core/intake";
import { readFrames, recognise } from "@caravan/core/metadata";
import { type ClipName, type Cut, type FrameRef, keptRefs, microsFromMs, type Project, type Source } from "@caravan/core/model";
import { clearGround, coverageOf, findGround, type Pixels } from "@caravan/core/raster";
import { findSeries } from "@caravan/core/series";
import { pngCodec } from "../../packages/cli/src/png";
import { PORTER_GROUND, PORTER_SIZE } from "./porter";

const NONE = { x: 0, y: 0 };
const WHOLE: Cut = { by: "count", columns: 1, rows: 1, margin: NONE, gap: NONE, keepEmpty: false };

/** `keep` stores a picture file's bytes by hash. */
export function withCamp(start: Project, files: readonly NamedFile[], keep: (sha256: string, bytes: Uint8Array) => void): Project {
  const png = pngCodec();
  const bytesOf = (path: string) => (files.find((file) => file.path === path) as NamedFile).bytes;
  const stored = (pixels: Pixels, bytes = png.encode(pixels)) => {
    const sha256 = sha256Hex(bytes);
    keep(sha256, bytes);
    return { sha256, width: pixels.width, height: pixels.height };
  };
  const still = (path: string) => {
    const pixels = png.decode(bytesOf(path), path);
    return { pixels, picture: stored(pixels, bytesOf(path)), coverage: coverageOf(pixels) };
  };

  const camel = still("camel.png");
  const outlines: Cut = { by: "outlines", joinPx: 4, leastPx: 4, level: true };
  const arrivals: Arrival[] = [{ name: "camel", pictures: [camel.picture], coverages: [camel.coverage], cut: outlines }];

  const { series } = findSeries(
    files.filter(({ path }) => path.startsWith("banner")),
    ({ path }) => path,
  );
  const stills = (series[0]?.members ?? []).map(({ file }) => still(file.path));
  arrivals.push({ name: "banner", pictures: stills.map(({ picture }) => picture), coverages: stills.map(({ coverage }) => coverage) });

  const well = [...readGif(bytesOf("well.gif"), "well.gif").frames(() => {})];
  arrivals.push({
    name: "well",
    pictures: well.map(({ pixels, ms }) => ({ ...stored(pixels), duration: microsFromMs(ms) })),
    coverages: well.map(({ pixels }) => coverageOf(pixels)),
    clips: [{ name: "well", playback: "loop", times: 0, steps: well.map(({ ms }, frame) => ({ frame, duration: microsFromMs(ms) })) }],
  });

  const bazaar = still("bazaar.png");
  const described = { picture: "bazaar.png", coverage: bazaar.coverage };
  const bazaarJson = textFromUtf8(bytesOf("bazaar.json"));
  const { parsed, reading } = recognise(bazaarJson, described, "bazaar.json");
  const { frames } = readFrames(parsed, reading, described);
  arrivals.push({
    name: "bazaar",
    pictures: [bazaar.picture],
    cut: cutByFile("bazaar.json", bazaarJson, reading),
    told: frames.map(({ name, rect, size, inset, origin }, k) => ({
      key: `m${k}`,
      column: k,
      row: 0,
      number: k,
      rect,
      empty: false,
      name,
      size,
      inset,
      ...(origin ? { origin } : {}),
    })),
  });

  const white = still("porter-on-white.png");
  const ground = findGround(white.pixels);
  if (!ground) throw new Error("The white ground is not noticed.");
  arrivals.push({
    name: "porter-on-white",
    pictures: [white.picture],
    clearing: ground.clearing,
    coverages: [coverageOf(clearGround(white.pixels, ground.clearing))],
    cut: { by: "cell", cell: PORTER_SIZE, margin: NONE, gap: NONE, keepEmpty: false },
  });

  for (const { name, pixels } of readOpenRaster(bytesOf("lamp-bearer.ora"), "lamp-bearer.ora", png, "flatten").layers)
    arrivals.push({ name: `lamp-bearer-${name}`, pictures: [stored(pixels)], coverages: [coverageOf(pixels)], cut: WHOLE });

  let project = takeIn(start, arrivals);
  const source = (name: string) => project.sources.find((each) => each.name === name) as Source;
  project = setSourceOrigin(project, source("porter-on-white").id, { x: PORTER_SIZE.w / 2, y: PORTER_GROUND + 1 });
  const clip = (name: string, refs: readonly FrameRef[], total: number) => {
    project = setClipTotal(addClip(project, refs, name), name as ClipName, total);
  };
  clip("camel-walk", keptRefs(source("camel")), 1_000_000);
  clip("banner", keptRefs(source("banner")), 1_200_000);
  clip("lantern", keptRefs(source("bazaar")).slice(3, 7), 560_000);
  project = setClipRules(project, "lantern" as ClipName, { playback: "pingpong", doubleEnds: true });
  // Three buckets are drawn, then the well is as before.
  return setClipRules(project, "well" as ClipName, { times: 3, after: "first" });
}
