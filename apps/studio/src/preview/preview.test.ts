import { lookOf } from "@caravan/core/art";
import { addAction, addClip, dropFrames, mirrorMissing, setPetal } from "@caravan/core/edit";
import { type ActionName, type ClipName, emptyProject, type Facing, type FrameRef, type Project } from "@caravan/core/model";
import { timelineOf } from "@caravan/core/playback";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { PLAYBACK_CASES } from "../../../../packages/core/src/playback/timeline.cases";
import { START, type View } from "../project/view";
import { seek, stepBy } from "./clock";
import { ghostsAround } from "./ghosts";
import { frameShown } from "./paint-stage";
import { timelineOfPlaying, usePlayerClock } from "./player-state";
import {
  type PlayedFrame,
  type Playing,
  type PlayWish,
  playingAtClips,
  playingAtFrames,
  playingAtMarks,
  playingAtShip,
  playingAtSources,
} from "./playing";
import { anchorOf, fittingZoom, frameOnStage, neighbourZoom, reachOf, stageScene } from "./stage-scene";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const project = addClip(porterProject(), [ref(0), ref(1), ref(2)], "walk");
const PLAYING = {
  sources: playingAtSources,
  frames: playingAtFrames,
  clips: playingAtClips,
  marks: playingAtMarks,
  rehearse: () => null,
  ship: playingAtShip,
};
const playingOf = (of: Project, view: View, wish: PlayWish = { facing: "s", onlyChosen: false }) => PLAYING[view.stop](of, view, wish);
const at = (view: Partial<View>) => playingOf(project, { ...START, ...view });
const names = (playing: Playing | null) => playing?.steps.map((step) => step.frame?.name ?? null);

describe("the content of the player at each stop", () => {
  it("plays the row under the pointer, or the picked frames in picking order, or the first row", () => {
    expect(names(at({ stop: "frames", hoverRow: 2, picked: [ref(3)] }))).toEqual(["porter/8", "porter/9", "porter/10", "porter/11"]);
    expect(names(at({ stop: "frames", picked: [ref(3), ref(1, 1)] }))).toEqual(["porter/3", "porter/5"]);
    expect(names(at({ stop: "frames" }))).toEqual(["porter/0", "porter/1", "porter/2", "porter/3"]);
    expect(at({ stop: "frames" })?.note).toBe("not a clip yet");
  });

  it("plays the selected clip at Clips and Ship, or the first one, with missing frames as gaps", () => {
    expect(at({ stop: "clips", clipName: "gone" as ClipName })?.title).toBe("walk");
    expect(names(playingOf(dropFrames(project, [ref(1)]), { ...START, stop: "ship" }))).toEqual(["porter/0", null, "porter/2"]);
  });

  it("shows an uncut picture whole, and nothing without pictures", () => {
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
      look: lookOf({}, { sha256: "" }),
      layers: [],
      rect: { x: 0, y: 0, w, h },
      turned: false,
      size: { w, h },
      drawn: { w, h },
      scale: 1,
      inset: { x: 0, y: 0 },
      origin: { x: ox / 2, y: oy / 2 },
    }),
  );

describe("the stage", () => {
  it("holds every frame's origin, or its foot, on one point, mirrored or not, and at a fitting zoom keeps every frame in sight", () =>
    fc.assert(
      fc.property(
        fc.array(frames, { minLength: 1, maxLength: 6 }),
        fc.constantFrom(1, 1.5, 2),
        fc.boolean(),
        fc.constantFrom("origin", "frame"),
        (all, density, mirror, held) => {
          const reach = reachOf([{ frames: all, mirror }], held);
          const zoom = fittingZoom(reach, 300, 220);
          const scene = stageScene(reach, zoom, 300, 220, density);
          if (zoom >= 1) expect(scene.scale % 1).toBe(0);
          for (const frame of all) {
            const { x, y, w, h } = frameOnStage(frame, scene, { held, mirror });
            const anchor = anchorOf(frame, held);
            const across = mirror ? frame.size.w - anchor.x : anchor.x;
            expect(Math.abs(x + across * scene.scale - scene.standing.x)).toBeLessThanOrEqual(0.5);
            expect(Math.abs(y + anchor.y * scene.scale - scene.standing.y)).toBeLessThanOrEqual(0.5);
            // A pixel or two of rounding where the display's scale is no whole number.
            if (density !== 1.5) expect(x >= -2 && y >= -2 && x + w <= 300 * density + 2 && y + h <= 220 * density + 2).toBe(true);
          }
        },
      ),
    ));

  it("zooms by whole numbers and stops at the ends", () => {
    expect([neighbourZoom(1, -1), neighbourZoom(0.25, -1), neighbourZoom(6, 1), neighbourZoom(16, 1)]).toEqual([0.5, 0.25, 8, 16]);
  });
});

describe("the drawing on the stage", () => {
  const still = (name: string): PlayedFrame => ({
    name,
    look: lookOf({}, { sha256: "" }),
    layers: [],
    rect: { x: 0, y: 0, w: 4, h: 4 },
    turned: false,
    size: { w: 4, h: 4 },
    drawn: { w: 4, h: 4 },
    scale: 1,
    inset: { x: 0, y: 0 },
    origin: { x: 2, y: 4 },
  });
  const PLAIN = { playback: "loop", times: 0, loopFrom: 0, after: "hold", doubleEnds: false } as const;

  // The table that the core's timeline and the player package are held to.
  for (const { name, ms, rules, at: shown } of PLAYBACK_CASES)
    it(name, () => {
      const steps = ms.map((each, k) => ({ duration: Math.round(each * 1000), frame: still(`f${k}`) }));
      const playing: Playing = { key: name, title: name, note: null, steps, rules: { ...PLAIN, ...rules } };
      for (const [time, step, , state] of shown)
        expect(frameShown(playing, time * 1000)?.name ?? null).toBe(state === "hidden" ? null : `f${step}`);
    });

  it("has ghosts of the steps played just before and after, none of the step itself", () => {
    const timeline = timelineOf({ ...PLAIN, steps: [100, 100, 100].map((duration) => ({ duration })) });
    expect(ghostsAround(timeline, 150, 0, 0)).toEqual([]);
    expect(ghostsAround(timeline, 150, 2, 1)).toEqual([
      { step: 0, apart: -1, at: 0 },
      { step: 2, apart: 1, at: 200 },
    ]);
    // In a later round, the step before the first is the last.
    expect(ghostsAround(timeline, 310, 1, 0)).toEqual([{ step: 2, apart: -1, at: 200 }]);
    const once = timelineOf({ ...PLAIN, playback: "once", steps: [100, 100].map((duration) => ({ duration })) });
    expect(ghostsAround(once, 900, 1, 3)).toEqual([{ step: 0, apart: -1, at: 0 }]);
  });
});

describe("an action", () => {
  const walking = ["go-e", "go-n"].reduce((next, name, row) => addClip(next, [ref(0, row), ref(1, row)], name), project);
  const acting = mirrorMissing(
    setPetal(setPetal(addAction(walking, "go", 4), "go" as ActionName, "e", { clip: "go-e" as ClipName }), "go" as ActionName, "n", {
      clip: "go-n" as ClipName,
    }),
    "go" as ActionName,
  );
  const facing = (wanted: Facing) =>
    playingOf(acting, { ...START, stop: "clips", actionName: "go" as ActionName }, { facing: wanted, onlyChosen: false });

  it("plays the given facing, mirrored ones too, and names the fallback of a missing one", () => {
    expect(facing("n")).toMatchObject({ title: "go", note: "go-n", turning: { shown: "n" } });
    expect(facing("w")).toMatchObject({ note: "go-e, mirrored", mirror: true, turning: { wanted: "w", shown: "w" } });
    expect(facing("s")).toMatchObject({ note: "go-e", turning: { wanted: "s", shown: "e" } });
  });

  it("keeps its phase when it turns: playback continues under the same key", () =>
    expect(new Set((["e", "w", "n", "s"] as const).map((each) => facing(each)?.key)).size).toBe(1));

  it("loops only the selected steps of a clip, if wanted", () => {
    const only = playingOf(project, { ...START, stop: "clips", steps: [1, 2] }, { facing: "s", onlyChosen: true });
    expect(names(only)).toEqual(["porter/1", "porter/2"]);
    expect(names(playingOf(project, { ...START, stop: "clips", steps: [] }, { facing: "s", onlyChosen: true }))).toHaveLength(3);
  });
});

describe("stepping", () => {
  it("moves to the starts of steps, wraps at the ends, and pauses", () => {
    const playing = at({ stop: "clips" }) as Playing;
    usePlayerClock.setState({ running: true });
    seek(usePlayerClock, 150_000);
    const steps = ([1, 1, 1, -1, -1] as const).map((direction) => {
      stepBy(usePlayerClock, timelineOfPlaying(playing), direction);
      return usePlayerClock.getState().elapsed;
    });
    expect(steps).toEqual([200_000, 300_000, 400_000, 300_000, 200_000]);
    seek(usePlayerClock, 0);
    stepBy(usePlayerClock, timelineOfPlaying(playing), -1);
    expect(usePlayerClock.getState().elapsed).toBe(200_000);
    expect(usePlayerClock.getState().running).toBe(false);
  });

  it("wraps in a clip that ends", () => {
    const once = {
      ...(at({ stop: "clips" }) as Playing),
      rules: { playback: "once", times: 0, loopFrom: 0, after: "hold", doubleEnds: false },
    } as const;
    seek(usePlayerClock, 300_000);
    stepBy(usePlayerClock, timelineOfPlaying(once), -1);
    expect(usePlayerClock.getState().elapsed).toBe(100_000);
    seek(usePlayerClock, 250_000);
    stepBy(usePlayerClock, timelineOfPlaying(once), 1);
    expect(usePlayerClock.getState().elapsed).toBe(0);
  });
});
