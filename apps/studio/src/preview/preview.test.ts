import { addClip, dropFrames } from "@caravan/core/edit";
import { type ClipName, emptyProject, type FrameRef } from "@caravan/core/model";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { START, type View } from "../project/view";
import { seek, stepBy, usePlayer, usePlayhead } from "./player-state";
import { type PlayedFrame, type Playing, playingOf } from "./playing";
import { fittingZoom, frameOnStage, neighbourZoom, reachOf, stageScene } from "./stage-scene";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const project = addClip(porterProject(), [ref(0), ref(1), ref(2)], "walk");
const at = (view: Partial<View>) => playingOf(project, { ...START, ...view });
const names = (playing: Playing | null) => playing?.steps.map((step) => step.frame?.name ?? null);

describe("playingOf", () => {
  it("plays the row under the pointer, else the picked frames in picking order, else the first row", () => {
    expect(names(at({ stop: "frames", hoverRow: 2, picked: [ref(3)] }))).toEqual(["porter/8", "porter/9", "porter/10", "porter/11"]);
    expect(names(at({ stop: "frames", picked: [ref(3), ref(1, 1)] }))).toEqual(["porter/3", "porter/5"]);
    expect(names(at({ stop: "frames" }))).toEqual(["porter/0", "porter/1", "porter/2", "porter/3"]);
    expect(at({ stop: "frames" })?.note).toBe("not a clip yet");
  });

  it("plays the chosen clip at Clips and Ship, else the first there is, with missing frames as gaps", () => {
    expect(at({ stop: "clips", clipName: "gone" as ClipName })?.title).toBe("walk");
    expect(names(playingOf(dropFrames(project, [ref(1)]), { ...START, stop: "ship" }))).toEqual(["porter/0", null, "porter/2"]);
  });

  it("shows an uncut picture whole, and nothing where there is nothing", () => {
    const uncut = { ...project, sources: project.sources.map((source) => ({ ...source, cut: null, frames: [] })) };
    expect(playingOf(uncut, { ...START, stop: "sources" })).toMatchObject({
      note: "not cut yet",
      steps: [{ frame: { rect: { x: 0, y: 0, w: 32, h: 30 } } }],
    });
    expect(playingOf(emptyProject("x"), START)).toBeNull();
    expect(playingOf(porterProject(), { ...START, stop: "clips" })).toBeNull();
  });
});

const frames = fc
  .record({
    w: fc.integer({ min: 1, max: 80 }),
    h: fc.integer({ min: 1, max: 80 }),
    ox: fc.integer({ min: -20, max: 160 }),
    oy: fc.integer({ min: -20, max: 160 }),
  })
  .map(
    ({ w, h, ox, oy }): PlayedFrame => ({
      name: "f",
      look: "",
      rect: { x: 0, y: 0, w, h },
      turned: false,
      size: { w, h },
      inset: { x: 0, y: 0 },
      origin: { x: ox / 2, y: oy / 2 },
    }),
  );

describe("the stage", () => {
  it("holds every frame's origin on one point, and at a fitting zoom keeps every frame in sight", () =>
    fc.assert(
      fc.property(fc.array(frames, { minLength: 1, maxLength: 6 }), fc.constantFrom(1, 1.5, 2), (all, density) => {
        const reach = reachOf(all);
        const zoom = fittingZoom(reach, 300, 220);
        const scene = stageScene(reach, zoom, 300, 220, density);
        if (zoom >= 1) expect(scene.scale % 1).toBe(0);
        for (const frame of all) {
          const { x, y, w, h } = frameOnStage(frame, scene);
          expect(Math.abs(x + frame.origin.x * scene.scale - scene.standing.x)).toBeLessThanOrEqual(0.5);
          expect(Math.abs(y + frame.origin.y * scene.scale - scene.standing.y)).toBeLessThanOrEqual(0.5);
          // A pixel or two of rounding where the display's scale is no whole number.
          if (density !== 1.5) expect(x >= -2 && y >= -2 && x + w <= 300 * density + 2 && y + h <= 220 * density + 2).toBe(true);
        }
      }),
    ));

  it("zooms by whole numbers and stops at the ends", () => {
    expect([neighbourZoom(1, -1), neighbourZoom(0.25, -1), neighbourZoom(6, 1), neighbourZoom(16, 1)]).toEqual([0.5, 0.25, 8, 16]);
  });
});

describe("stepping", () => {
  it("goes to the starts of steps, round at the ends, and pauses", () => {
    const playing = at({ stop: "clips" }) as Playing;
    usePlayer.setState({ running: true });
    seek(150_000);
    const steps = ([1, 1, 1, -1, -1] as const).map((direction) => {
      stepBy(playing, direction);
      return usePlayhead.getState().elapsed;
    });
    expect(steps).toEqual([200_000, 300_000, 400_000, 300_000, 200_000]);
    seek(0);
    stepBy(playing, -1);
    expect(usePlayhead.getState().elapsed).toBe(200_000);
    expect(usePlayer.getState().running).toBe(false);
  });

  it("goes round in a clip that ends", () => {
    const once = {
      ...(at({ stop: "clips" }) as Playing),
      rules: { playback: "once", times: 0, loopFrom: 0, after: "hold", doubleEnds: false },
    } as const;
    seek(300_000);
    stepBy(once, -1);
    expect(usePlayhead.getState().elapsed).toBe(100_000);
    seek(250_000);
    stepBy(once, 1);
    expect(usePlayhead.getState().elapsed).toBe(0);
  });
});
