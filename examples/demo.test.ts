import { readFileSync } from "node:fs";
import { join } from "node:path";
import { drawnIn } from "@caravan/core/art";
import { bundleFiles } from "@caravan/core/bundle";
import { type Finding, findingsOf, mended } from "@caravan/core/check";
import { colourPieces } from "@caravan/core/edit";
import {
  type Clearing,
  clipNamed,
  type FrameRef,
  findFrame,
  frameSize,
  originOf,
  type PlacedFrame,
  pictureOf,
  type Source,
  type Stage,
} from "@caravan/core/model";
import { clearGround, coverageOf, crop, drawnPart, looksSame } from "@caravan/core/raster";
import { accountOf } from "@caravan/core/rehearse";
import { feetOf, footFrame, type Setting, settingOf, steadySpeed, worstSlide } from "@caravan/core/stage";
import { describe, expect, it } from "vitest";
import { pngCodec } from "../packages/cli/src/png";
import { pieceFindings } from "../packages/core/src/check/piece-findings";
import { SCHEMAS } from "../scripts/schemas";
import { camelSheet } from "./draw/camel";
import { demoProject, demoSheets } from "./draw/demo";
import { porterOnWhite, porterUnspoilt, rawFiles } from "./draw/raw";

const root = join(import.meta.dirname, "..");

describe("The Tamarisk Road", () => {
  const bundle = demoProject();

  it("is drawn to exactly the committed bytes", () => {
    for (const { path, bytes } of bundleFiles(bundle))
      expect(new Uint8Array(readFileSync(join(root, "examples/tamarisk-road", path))), path).toEqual(bytes);
  });

  it("comes from committed raw files, too", () => {
    for (const { path, bytes } of rawFiles()) expect(new Uint8Array(readFileSync(join(root, "examples/raw", path))), path).toEqual(bytes);
  });

  it("has the camel's eight drawings as frames of equal size, and the porter free of his white ground", () => {
    const source = (name: string) => bundle.project.sources.find((each) => each.name === name) as Source;
    const camel = source("camel");
    expect(camel.frames.map(({ rect }) => rect)).toEqual(camelSheet().boxes);
    expect(new Set(camel.frames.map((frame) => frameSize(camel, frame).h)).size).toBeLessThanOrEqual(2);
    const white = source("porter-on-white");
    const cleared = clearGround(porterOnWhite(), white.clearing as Clearing);
    // Ground that arms and legs enclose stays: only what hangs together with the edges is cleared.
    const meant = porterUnspoilt();
    let off = 0;
    for (let k = 3; k < cleared.bytes.length; k += 4) if (cleared.bytes[k] !== meant.bytes[k]) off++;
    expect(off / (cleared.bytes.length / 4)).toBeLessThan(0.002);
  });

  it("has every way of looping, an action in four facings with a mirror, one in eight, and events", () => {
    const { clips, actions } = bundle.project;
    const ways = clips.map(({ playback, times, loopFrom, after, doubleEnds }) => ({ playback, times, loopFrom, after, doubleEnds }));
    for (const way of [
      { playback: "once", after: "hide" },
      { playback: "loop", times: 0, loopFrom: 0 },
      { playback: "loop", times: 3, after: "first" },
      { playback: "loop", loopFrom: 2 },
      { playback: "pingpong", times: 2, doubleEnds: false },
      { playback: "pingpong", doubleEnds: true },
    ])
      expect(ways).toContainEqual(expect.objectContaining(way));
    expect(actions.map(({ name, ways: count, facings }) => [name, count, Object.keys(facings).length])).toEqual([
      ["walk", 8, 8],
      ["idle", 4, 4],
      ["lamp-walk", 8, 8],
      ["lamp-idle", 4, 4],
      ["stop", 8, 8],
      ...["bearer-walk", "bearer-lamp"].map((name) => [name, 4, 4]),
      ...["bearer-walk", "bearer-lamp"].map((name) => [`${name}-elder`, 4, 4]),
      ...["bearer-walk", "bearer-lamp"].map((name) => [`${name}-guard`, 4, 4]),
    ]);
    expect(actions[1]?.facings.w).toEqual({ clip: "idle-e", mirror: true });
    expect(new Set(clips.flatMap(({ steps }) => steps.flatMap(({ events }) => events ?? [])))).toEqual(
      new Set(["footfall", "crackle", "turn"]),
    );
  });

  it("has a porter whose rules all show in one drive, and whose feet stay on the ground", () => {
    const { behaviours = [], drives = [], stages = [] } = bundle.project;
    const [behaviour] = behaviours;
    const [drive] = drives;
    expect(drive?.length).toBe(20_000);
    expect(new Set(drive?.account.map(({ rule }) => rule))).toEqual(new Set(behaviour?.rules.map(({ name }) => name)));
    // What was kept is what the rules make of it now, from its keys and from its track.
    const setting = settingOf(bundle.project, stages[0] as Stage) as Setting;
    const { rows } = accountOf(setting.program, drive?.track ?? [], { until: 20_000_000 });
    expect(rows.map((row) => ({ ...row, at: row.at / 1000 }))).toEqual(drive?.account);
    const steps = clipNamed(bundle.project, "walk-e").steps.map(({ frame, duration }) => {
      const { source, frame: placed } = findFrame(bundle.project, frame) as PlacedFrame;
      const { sha256 } = pictureOf(source, placed);
      const pixels = pngCodec().decode(bundle.pictures.get(sha256) as Uint8Array, "walk");
      return footFrame(drawnIn(coverageOf(pixels), source, placed), originOf(source, placed), duration);
    });
    const feet = feetOf(steps);
    expect(steadySpeed(feet)?.speed).toBe(stages[0]?.movement.speed);
    expect(worstSlide(feet, stages[0]?.movement.speed ?? 0)).toBeLessThanOrEqual(1);
  });

  it("has a lamp-bearer of pieces on a grid of 8 px, in four facings and three palettes, without findings", () => {
    const { project } = bundle;
    const bearer = project.sources.find(({ name }) => name === "bearer") as Source;
    for (const { pieces = [] } of bearer.frames) for (const { x, y } of pieces) expect([x % 8, y % 8]).toEqual([0, 0]);
    expect(pieceFindings(project)).toEqual([]);
    expect(new Set(bearer.frames.flatMap(({ pieces = [] }) => pieces.map(({ palette }) => palette)))).toEqual(
      new Set([undefined, "guard", "elder"]),
    );
  });

  it("would report one of his steps in another robe, and mend it", () => {
    const { steps } = clipNamed(bundle.project, "bearer-lamp-s-guard");
    const frame = steps[2]?.frame as FrameRef;
    const robe = findFrame(bundle.project, frame)?.frame.pieces?.findIndex((_, place) => place === 1) as number;
    const wrong = colourPieces(bundle.project, frame, [robe], "elder");
    const [first] = pieceFindings(wrong).filter(({ code }) => code === "odd-palette");
    expect(first?.message).toContain("1 piece of it wears elder in step 2 of bearer-lamp-s-guard, and guard is worn before and after");
    expect(mended(wrong, first as Finding)).toEqual(bundle.project);
  });

  it("has no error among its findings", () =>
    expect(findingsOf(bundle.project).filter(({ severity }) => severity === "error")).toEqual([]));

  it("contains nothing half-transparent, draws something in every cell, and no equal neighbours", () => {
    for (const { name, pixels, cell } of demoSheets()) {
      for (let k = 3; k < pixels.bytes.length; k += 4)
        if (pixels.bytes[k] !== 0 && pixels.bytes[k] !== 255) throw new Error(`${name} is soft.`);
      const coverage = coverageOf(pixels);
      const columns = pixels.width / cell.w;
      for (let k = 0; k < columns * (pixels.height / cell.h); k++) {
        const rect = { x: (k % columns) * cell.w, y: Math.floor(k / columns) * cell.h, ...cell };
        expect(drawnPart(coverage, rect), `${name} ${k}`).not.toBeNull();
        if (k % columns > 0)
          expect(looksSame(crop(pixels, rect), crop(pixels, { ...rect, x: rect.x - cell.w })), `${name} ${k}`).toBe(false);
      }
    }
  });

  it("keeps the porter's feet within two pixels of one line while he stands", () => {
    const idle = demoSheets().find(({ name }) => name === "porter-idle") as ReturnType<typeof demoSheets>[number];
    const coverage = coverageOf(idle.pixels);
    for (let row = 0; row < 8; row++) {
      const bottoms = [0, 1, 2, 3].map((column) => {
        const part = drawnPart(coverage, { x: column * 40, y: row * 48, w: 40, h: 48 });
        return part ? part.y + part.h - row * 48 : 0;
      });
      expect(Math.max(...bottoms) - Math.min(...bottoms), `row ${row}`).toBe(0);
      expect(Math.abs((bottoms[0] as number) - idle.ground), `row ${row}`).toBeLessThanOrEqual(2);
    }
  });
});

describe("the published schemas", () => {
  for (const [name, schema] of Object.entries(SCHEMAS))
    it(`${name} says what the code checks (npm run schemas writes it)`, () =>
      expect(readFileSync(join(root, "docs/formats", name), "utf8")).toBe(schema));
});
