import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addBox, addClip, addMarkKind, addRehearsal, putPoint, setClipRules, setOutlines, setStage, setStepEvents } from "../edit";
import { porterProject } from "../edit/project.fixture";
import type { ClipName, FramePoint, FrameRef, Going, KeyMoment, MarkName, Project, Stage, StageName } from "../model";
import { clearPixels, coverageOf } from "../raster";
import { accountOf } from "../rehearse";
import { bodyOf } from "./body";
import { feetOf, slides, steadySpeed, worstSlide } from "./feet";
import { outlinesOf } from "./figure";
import { proposed, stageFor } from "./proposal";
import { emptyLog, rehearsalAtStart, rehearsed, rehearsedUntil, timeOfStep } from "./rehearsal";
import { guessedRoles } from "./roles";
import { type Setting, settingOf } from "./setting";

const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;
const named = (name: string) => name as ClipName;

/** A porter of cells of 8 × 10 px who idles, walks and throws, seen from the side; his hand is where he throws from. */
function porter(change: Partial<Stage> = {}): { project: Project; setting: Setting } {
  let project = addClip(porterProject(), [ref(0, 0), ref(1, 0)], "idle");
  project = addClip(project, [ref(0, 1), ref(1, 1), ref(2, 1), ref(3, 1)], "walk");
  project = addClip(project, [ref(0, 2), ref(1, 2)], "throw");
  project = setClipRules(project, named("throw"), { playback: "once" });
  project = setStepEvents(project, named("throw"), [1], ["shot"]);
  project = addClip(project, [ref(2, 2), ref(3, 2)], "bolt");
  project = setClipRules(project, named("bolt"), { playback: "once", after: "hide" });
  project = addMarkKind(addMarkKind(addMarkKind(project, "point", "hand"), "box", "reach"), "box", "hurt");
  const all = project.sources[0]?.frames.map((frame) => `s1/${frame.key}` as FrameRef) ?? [];
  project = putPoint(project, "throw", [ref(1, 2)], "hand" as MarkName, ref(1, 2), { x: 7, y: 3 });
  project = addBox(project, "all", all, "hurt" as MarkName, ref(0, 0), { x: 1, y: 1, w: 6, h: 9 });
  const { behaviour, stage } = proposed(project, guessedRoles(project), "porter");
  project = addRehearsal(project, behaviour, { ...stage, name: "road" as StageName });
  const made = project.stages?.[0] as Stage;
  project = setStage(project, made.name, {
    ...{ start: { x: 100, y: 150, facing: "e" }, movement: { speed: 60, start: 0, stop: 0, jump: 20, gravity: 900 } },
    ...change,
  });
  return { project, setting: settingOf(project, project.stages?.[0] as Stage) as Setting };
}

const hold = (go: Going, at: number, until: number): KeyMoment[] => [
  { at, go, down: true },
  { at: until, go, down: false },
];

function driven(setting: Setting, keys: readonly KeyMoment[], untilMs: number) {
  const log = emptyLog();
  const end = rehearsedUntil(setting, rehearsalAtStart(setting), keys, untilMs * 1000, log);
  return { end, log, rows: [...log.rows, ...end.run.rows] };
}

describe("a rehearsal", () => {
  it("moves at its top speed while a key is held, and not a pixel further", () => {
    const { end, rows } = driven(porter().setting, hold("right", 500, 1500), 2000);
    expect(end.moving.x).toBeCloseTo(160, 6);
    expect(rows.map(({ rule }) => rule)).toEqual(["idle", "walk", "idle"]);
  });

  it("jumps to its set height, within a pixel, and lands where it stood", () => {
    const { setting } = porter();
    let now = rehearsalAtStart(setting);
    let highest = 150;
    for (let step = 0; step < 240; step++) {
      const keys: KeyMoment[] = step === 10 ? [{ at: 0, go: "up", down: true }] : [];
      now = rehearsed(setting, now, keys, emptyLog());
      highest = Math.min(highest, now.moving.y);
    }
    expect(Math.abs(150 - highest - 20)).toBeLessThan(1);
    expect(now.moving).toMatchObject({ y: 150, vy: 0, grounded: true });
  });

  it("stands on a platform that it falls onto, and passes it from below", () => {
    const { setting } = porter({ platforms: [{ x: 80, y: 136, w: 60, h: 6 }] });
    const { end } = driven(setting, [{ at: 40, go: "up", down: true }], 1500);
    expect(end.moving.y).toBe(136);
  });

  it("is stopped by solid things seen from above, and slides along them", () => {
    const { setting } = porter({ view: "above", ground: 20, platforms: [{ x: 120, y: 100, w: 20, h: 100 }], body: "hurt" as MarkName });
    const { end } = driven(
      setting,
      [...hold("right", 0, 2000), ...hold("down", 0, 1000)].sort((a, b) => a.at - b.at),
      2000,
    );
    expect(end.moving.x).toBeLessThan(120);
    expect(end.moving.y).toBeGreaterThan(170);
  });

  it("never leaves the world, whatever is held, and the same keys give the same, in pieces or at once", () =>
    fc.assert(
      fc.property(
        fc.constantFrom("side" as const, "above" as const),
        fc.array(fc.tuple(fc.constantFrom<Going>("left", "right", "up", "down"), fc.nat(3000), fc.nat(900)), { maxLength: 8 }),
        fc.integer({ min: 1, max: 400 }),
        (view, held, piece) => {
          const { setting } = porter({ view, ground: view === "side" ? 150 : 40, world: { w: 300, h: 200 } });
          const keys = held.flatMap(([go, at, long]) => hold(go, at, at + long)).sort((a, b) => a.at - b.at);
          const whole = driven(setting, keys, 4000);
          const log = emptyLog();
          let now = rehearsalAtStart(setting);
          while (now.steps < whole.end.steps)
            now = rehearsedUntil(setting, now, keys, timeOfStep(Math.min(whole.end.steps, now.steps + piece) - 1), log);
          expect([now.moving, log.track, log.rows]).toEqual([whole.end.moving, whole.log.track, whole.log.rows]);
          const { x, y } = now.moving;
          expect(x).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(300);
          expect(y).toBeLessThanOrEqual(200);
          // What was recorded of the inputs gives the same account on its own.
          expect(accountOf(setting.program, log.track, { until: timeOfStep(now.steps - 1) }).rows).toEqual(whole.rows);
        },
      ),
      { numRuns: 40 },
    ));

  it("fires a shot at the point, on the step, in the figure's direction, until it has flown its distance", () => {
    const effects = [{ name: "bolt", event: "shot", play: "bolt", point: "hand" as MarkName, speed: 120, reach: 60 }];
    const { setting } = porter({ effects });
    const keys: KeyMoment[] = [...hold("left", 0, 500), { at: 600, input: "throw", down: true }].sort((a, b) => a.at - b.at);
    const before = driven(setting, keys, 690);
    expect(before.end.playing).toEqual([]);
    const { end } = driven(setting, keys, 705);
    // The origin of an 8 × 10 cell is at its middle below; the hand is 3 px right of it and 7 px up.
    expect(end.playing).toMatchObject([{ x: 70 + 3, y: 150 - 7, vx: -120, gone: 700_000 + 500_000 }]);
    expect(driven(setting, keys, 1201).end.playing).toEqual([]);
  });

  it("sets a switch on entering a zone, keeps it, and triggers once if told so", () => {
    const zone = { name: "gate", area: { x: 120, y: 100, w: 20, h: 60 }, input: "throw", on: "entering" as const };
    const keys = [...hold("right", 0, 1000), ...hold("left", 1000, 2000)].sort((a, b) => a.at - b.at);
    const throws = (setting: Setting) => driven(setting, keys, 2500).rows.filter(({ rule }) => rule === "throw").length;
    expect(throws(porter({ zones: [zone] }).setting)).toBe(2);
    expect(throws(porter({ zones: [{ ...zone, once: true }] }).setting)).toBe(1);
  });

  it("reports a hit while boxes touch, and presses its button once", () => {
    const { setting } = porter({
      extras: [{ name: "target", play: "idle", facing: "w", x: 140, y: 150 }],
      hits: [{ ours: "hurt" as MarkName, theirs: "hurt" as MarkName, input: "throw" }],
    });
    const { end, rows } = driven(setting, hold("right", 0, 700), 1500);
    expect([...end.touching]).toEqual([0]);
    expect(rows.filter(({ rule }) => rule === "throw")).toHaveLength(1);
  });
});

describe("outlines on the stage", () => {
  const SOLID = "solid" as MarkName;
  /** A triangle whose lower right half of the frame is not its own. */
  const triangle = [{ x: 0, y: 0 }, { x: 8, y: 0 }, { x: 0, y: 10 }]; // biome-ignore format: corners

  function triangles(extra: { x: number; y: number; facing: "e" | "w" }, change: Partial<Stage> = {}, corners = triangle): Setting {
    const { project } = porter({
      extras: [{ name: "target", play: "idle", ...extra }],
      hits: [{ ours: "solid" as MarkName, theirs: "solid" as MarkName }],
      body: SOLID,
      ...change,
    });
    const all = project.sources[0]?.frames.map((frame) => `s1/${frame.key}` as FrameRef) ?? [];
    const marked = setOutlines(addMarkKind(project, "outline", "solid"), "all", all, SOLID, ref(0, 0), [corners]);
    return settingOf(marked, marked.stages?.[0] as Stage) as Setting;
  }

  it("collide by their shape, not by their bounding rectangles", () => {
    // Origins are at the bottom middle: the other stands 7 px to the right and 9 px lower, so that the rectangles meet and the triangles do not.
    const touching = (setting: Setting) => [...driven(setting, [], 200).end.touching];
    expect(touching(triangles({ x: 107, y: 159, facing: "e" }))).toEqual([]);
    expect(touching(triangles({ x: 102, y: 152, facing: "e" }))).toEqual([0]);
  });

  // Looking east, the tip is the lower left corner of the frame: 4 px to the left of the origin.
  const away = { x: 0, y: 0, facing: "e" } as const;
  const above: Partial<Stage> = { start: { x: 100, y: 120, facing: "e" }, platforms: [{ x: 97, y: 140, w: 60, h: 6 }] };

  it("stand on what is below them, sunk a little with the tip beside the edge, and rise as they walk onto it", () => {
    const setting = triangles(away, above);
    expect(driven(setting, [], 1500).end.moving).toMatchObject({ grounded: true, y: 141.25 });
    expect(driven(setting, hold("right", 1500, 1700), 2000).end.moving).toMatchObject({ grounded: true, y: 140 });
    // What the tip is past falls, though the rectangle around it reaches over the platform.
    const beside = triangles(away, { ...above, platforms: [{ x: 20, y: 140, w: 76, h: 6 }] });
    expect(driven(beside, [], 1500).end.moving).toMatchObject({ grounded: true, y: 150 });
  });

  it("walk over adjacent platforms as over one, whatever their shape", () => {
    const corner = fc.record({ x: fc.integer({ min: 0, max: 8 }), y: fc.integer({ min: 0, max: 10 }) });
    fc.assert(
      fc.property(
        fc.array(corner, { minLength: 3, maxLength: 3 }),
        fc.array(fc.integer({ min: 1, max: 30 }), { maxLength: 6 }),
        (corners, widths) => {
          const [a, b, c] = corners as [FramePoint, FramePoint, FramePoint];
          fc.pre((b.x - a.x) * (c.y - a.y) !== (c.x - a.x) * (b.y - a.y));
          const upTo = (k: number) => widths.slice(0, k).reduce((sum, w) => sum + w, 90);
          const platforms = widths.map((w, k) => ({ x: upTo(k), y: 140, w, h: 4 }));
          const setting = triangles(
            away,
            {
              start: { x: 100, y: 120, facing: "e" },
              platforms: [{ x: 0, y: 140, w: 90, h: 4 }, ...platforms, { x: upTo(widths.length), y: 140, w: 500, h: 4 }],
            },
            corners,
          );
          const low = bodyOf(setting.project, ref(0, 0), false, SOLID).area;
          let now = rehearsedUntil(setting, rehearsalAtStart(setting), hold("right", 0, 9000), 400_000, emptyLog());
          for (let step = 0; step < 240; step++) {
            expect(now.moving.y).toBeCloseTo(140 - low.y - low.h, 6);
            now = rehearsed(setting, now, [], emptyLog());
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it("are in a zone only where they are", () => {
    const zone = (y: number) => [{ name: "lamp", area: { x: 102, y, w: 4, h: 150 - y }, on: "inside" as const }];
    expect([...driven(triangles(away, { zones: zone(145) }), [], 200).end.inside]).toEqual([]);
    expect([...driven(triangles(away, { zones: zone(141) }), [], 200).end.inside]).toEqual(["lamp"]);
  });

  it("are stopped from above by their feet alone", () => {
    const wall = { view: "above" as const, ground: 20, platforms: [{ x: 104, y: 100, w: 20, h: 100 }] };
    // The rectangle reaches to 104 and would not go on; the lowest 6 px of the outline end at 100.8.
    const { x } = driven(triangles(away, wall), hold("right", 0, 1000), 1200).end.moving;
    expect(x).toBeGreaterThanOrEqual(103);
    expect(x).toBeLessThan(103.5);
  });

  it("may be named like a member of every object", () => {
    const odd = addMarkKind(porter().project, "outline", "constructor");
    expect(bodyOf(odd, ref(0, 0), false, "constructor" as MarkName).area).toMatchObject({ w: 4 });
    expect(outlinesOf(odd, { frame: ref(0, 0), mirror: false, x: 0, y: 0 }, "toString" as MarkName)).toEqual([]);
  });

  it("are the body's shape, mirrored with the figure", () => {
    const { project } = triangles({ x: 0, y: 0, facing: "e" });
    expect(bodyOf(project, ref(0, 0), false, SOLID).area).toEqual({ x: -4, y: -10, w: 8, h: 10 });
    expect(outlinesOf(project, { frame: ref(0, 0), mirror: true, x: 50, y: 60 }, SOLID)).toEqual([
      [{ x: 54, y: 50 }, { x: 46, y: 50 }, { x: 54, y: 60 }], // biome-ignore format: corners
    ]);
  });
});

describe("roles", () => {
  const called = (...names: string[]) =>
    guessedRoles(names.reduce((project, name, k) => addClip(project, [ref(k % 4, 0), ref(k % 4, 1)], name), porterProject()));

  it("are recognised by names in several languages, with any separator", () => {
    expect(called("HeroRun", "HeroStand")).toMatchObject({ move: "HeroRun", stand: "HeroStand" });
    expect(called("ruhe", "laufen", "sprung")).toMatchObject({ stand: "ruhe", move: "laufen", jump: "sprung" });
    expect(called("reposo_1", "caminar_1", "caida")).toMatchObject({ stand: "reposo_1", move: "caminar_1", fall: "caida" });
    expect(called("待機", "歩き")).toMatchObject({ stand: "待機", move: "歩き" });
  });

  it("are recognised by playback if names say nothing, and nothing gets two roles", () => {
    let project = addClip(porterProject(), [ref(0, 0)], "a");
    project = addClip(project, [ref(0, 1), ref(1, 1), ref(2, 1)], "b");
    project = setClipRules(addClip(project, [ref(0, 2), ref(1, 2)], "c"), named("c"), { playback: "once" });
    expect(guessedRoles(project)).toEqual({ stand: "a", move: "b", jump: null, fall: null, acts: ["c"] });
    expect(guessedRoles(porterProject())).toEqual({ stand: null, move: null, jump: null, fall: null, acts: [] });
  });

  it("make a behaviour whose every name is there, for any clips", () =>
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom("idle", "walk", "jump", "fall", "strike", "speed", "air", "walk 2"), { minLength: 1 }),
        (names) => {
          let project = names.reduce((made, name, k) => addClip(made, [ref(k % 4, 0), ref(k % 4, 1)], name), porterProject());
          for (const name of names.slice(0, 3)) project = setClipRules(project, named(name), { playback: "once" });
          const { behaviour, stage } = proposed(project, guessedRoles(project), "hero");
          const made = addRehearsal(project, behaviour, stage);
          expect(new Set(behaviour.rules.map(({ name }) => name)).size).toBe(behaviour.rules.length);
          expect(new Set(made.behaviours?.[0]?.inputs.map(({ name }) => name)).size).toBe(behaviour.inputs.length);
          expect(made.stages?.[0]?.behaviour).toBe("hero");
        },
      ),
    ));
});

describe("feet against ground", () => {
  /** A figure whose one foot goes back by so many px a step, four steps, and comes forward lifted. */
  const walker = (by: number) => {
    const frames = [];
    for (let step = 0; step < 8; step++) {
      const pixels = clearPixels(40, 30);
      const dot = (x: number, y: number) => pixels.bytes.set([0, 0, 0, 255], (y * 40 + x) * 4);
      for (let y = 2; y < 22; y++) for (let x = 17; x < 23; x++) dot(x, y);
      // The other foot does the same half a round later, a little behind.
      for (const [foot, behind] of [
        [step, 0],
        [(step + 4) % 8, 8],
      ] as const) {
        const planted = foot < 5;
        const x = 26 - behind - by * (planted ? foot : (8 - foot) * (4 / 3));
        const sole = planted ? 28 : [25, 23, 25][foot - 5];
        for (let y = 22; y < (sole as number); y++) for (let dx = 0; dx < 3; dx++) dot(Math.round(x) + dx, y);
      }
      frames.push({ coverage: coverageOf(pixels), origin: { x: 20, y: 28 }, duration: 100_000 });
    }
    return feetOf(frames);
  };

  it("finds the speed at which the planted foot does not slide", () => {
    for (const by of [1, 2, 3]) {
      const steady = steadySpeed(walker(by));
      expect(steady).toEqual({ speed: by * 10, worst: 0 });
    }
  });

  it("measures the slide at another speed, step by step", () => {
    expect(slides(walker(3), 50).slice(0, 3)).toEqual([2, 2, 2]);
    expect(worstSlide(walker(3), 30)).toBe(0);
  });

  it("says nothing about a standing figure", () => {
    const pixels = clearPixels(8, 8);
    for (let k = 0; k < 64; k++) pixels.bytes[k * 4 + 3] = 255;
    const frame = { coverage: coverageOf(pixels), origin: { x: 4, y: 8 }, duration: 100_000 };
    expect(steadySpeed(feetOf([frame, frame]))).toBeNull();
    expect(stageFor(porterProject(), null, "side").movement.speed).toBe(32);
  });
});
