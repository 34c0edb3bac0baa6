import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Facing, FramePoint, MarkName, MarkPoint, Part, StepParts } from "../model";
import { timelineOf } from "../playback";
import { type PartHost, type PartsWorld, type PlacedPart, placedParts } from "./placed";
import { placeTurned, turnedBy } from "./turned";

const RULES = { playback: "loop", times: 0, loopFrom: 0, after: "hold", doubleEnds: false } as const;
const hand = "hand" as MarkName;
const grip = "grip" as MarkName;

interface TestFrame {
  readonly origin: FramePoint;
  readonly points: Readonly<Record<string, MarkPoint>>;
}

function worldOf(
  parts: readonly Part[],
  clips: Record<string, readonly { frame: string; ms: number; parts?: StepParts }[]>,
  frames: Record<string, TestFrame>,
  actions: Record<string, Partial<Record<Facing, { clip: string; mirror?: boolean }>>> = {},
): PartsWorld {
  return {
    parts,
    shows: (action, clip) => Object.values(actions[action] ?? {}).some((petal) => petal.clip === clip),
    cast(play, facing, mirror) {
      const petal = actions[play]?.[facing];
      if (petal) return { clip: petal.clip, mirror: petal.mirror === true };
      return clips[play] ? { clip: play, mirror } : null;
    },
    timeline: (clip) => timelineOf({ ...RULES, steps: (clips[clip] ?? []).map(({ ms }) => ({ duration: ms * 1000 })) }),
    step: (clip, index) => clips[clip]?.[index],
    point: (frame, name) => frames[frame]?.points[name] ?? null,
    origin: (frame) => frames[frame]?.origin ?? { x: 0, y: 0 },
  };
}

const lamp: Part = { name: "lamp", host: "walk", guest: "swing", at: hand, by: grip, time: "own", front: true };
const FRAMES: Record<string, TestFrame> = {
  w0: { origin: { x: 8, y: 15 }, points: { hand: { x: 12, y: 9 } } },
  w1: { origin: { x: 8, y: 15 }, points: {} },
  l0: { origin: { x: 3, y: 8 }, points: { grip: { x: 2, y: 0 }, hook: { x: 3, y: 6 } } },
  l1: { origin: { x: 3, y: 8 }, points: { grip: { x: 4, y: 1 } } },
  moth: { origin: { x: 1, y: 1 }, points: {} },
};
const CLIPS = {
  walk: [
    { frame: "w0", ms: 100 },
    { frame: "w1", ms: 100 },
  ],
  swing: [
    { frame: "l0", ms: 50 },
    { frame: "l1", ms: 50 },
  ],
  moth: [{ frame: "moth", ms: 100 }],
};
const host: PartHost = { clip: "walk", mirror: false, facing: "e", step: 0, time: 0, since: 0 };

describe("placed parts", () => {
  it("place the guest's point on the host's, as an offset between origins", () => {
    const world = worldOf([lamp], CLIPS, FRAMES);
    // The hand is 4 right of and 6 above the host's origin; the grip 1 left of and 8 above the lamp's.
    expect(placedParts(world, host)).toEqual([{ name: "lamp", frame: "l0", mirror: false, x: 5, y: 2, front: true }]);
    expect(placedParts(world, { ...host, since: 60_000 })[0]).toMatchObject({ frame: "l1", x: 3, y: 1 });
    expect(placedParts(worldOf([{ ...lamp, time: "together" }], CLIPS, FRAMES), { ...host, time: 60_000 })[0]?.frame).toBe("l1");
    const { by: _by, ...byOrigin } = lamp;
    expect(placedParts(worldOf([byOrigin], CLIPS, FRAMES), host)[0]).toMatchObject({ x: 4, y: -6 });
  });

  it("are left out if the frame lacks the point or the step hides them; a step brings them forward or behind", () => {
    expect(placedParts(worldOf([lamp], CLIPS, FRAMES), { ...host, step: 1 })).toEqual([]);
    const told = (parts: StepParts) => worldOf([lamp], { ...CLIPS, walk: [{ frame: "w0", ms: 100, parts }] }, FRAMES);
    expect(placedParts(told({ lamp: { hidden: true } }), host)).toEqual([]);
    expect(placedParts(told({ lamp: { front: false } }), host)[0]?.front).toBe(false);
  });

  it("are in drawing order, a guest's own parts with it", () => {
    const moth: Part = { name: "moth", host: "swing", guest: "moth", at: "hook" as MarkName, time: "own", front: false };
    const behind: Part = { ...lamp, name: "shadow", front: false };
    const placed = placedParts(worldOf([lamp, moth, behind], CLIPS, FRAMES), host);
    expect(placed.map(({ name, front }) => `${name} ${front}`)).toEqual(["moth false", "shadow false", "moth true", "lamp true"]);
    expect(placed[2]).toMatchObject({ x: 5, y: 0 });
  });

  it("that hang on themselves in a circle are drawn once and no more", () => {
    const back: Part = { name: "back", host: "swing", guest: "walk", at: grip, time: "own", front: true };
    expect(placedParts(worldOf([lamp, back], CLIPS, FRAMES), host).map(({ name }) => name)).toEqual(["lamp", "back"]);
  });

  it("of an action face like their host; of a clip they are mirrored with it", () => {
    const actions = {
      carry: { e: { clip: "walk" }, w: { clip: "walk", mirror: true } },
      light: { e: { clip: "swing" }, w: { clip: "moth" } },
    };
    const world = worldOf(
      [
        { ...lamp, host: "carry" },
        { ...lamp, name: "both", host: "carry", guest: "light" },
      ],
      CLIPS,
      FRAMES,
      actions,
    );
    const [clip, action] = placedParts(world, { ...host, facing: "w", mirror: true });
    expect(clip).toEqual({ name: "lamp", frame: "l0", mirror: true, x: -5, y: 2, front: true });
    // The moth has no grip, so it is not drawn.
    expect(action).toBeUndefined();
  });

  it("are mirrored exactly: an offset to the left becomes one to the right", () =>
    fc.assert(
      fc.property(
        fc.record({ x: fc.integer({ min: -40, max: 40 }), y: fc.integer({ min: -40, max: 40 }) }),
        fc.record({ x: fc.integer({ min: -40, max: 40 }), y: fc.integer({ min: -40, max: 40 }) }),
        fc.integer({ min: 0, max: 80 }),
        (at, by, half) => {
          const frames = {
            w0: { origin: { x: half / 2, y: 15 }, points: { hand: at } },
            l0: { origin: { x: 3.5, y: 8 }, points: { grip: by } },
            l1: { origin: { x: 3.5, y: 8 }, points: { grip: by } },
          };
          const world = worldOf([lamp], CLIPS, frames);
          const [plain] = placedParts(world, host);
          const [mirrored] = placedParts(world, { ...host, mirror: true });
          expect(mirrored).toEqual({ ...plain, mirror: true, x: plain ? 0 - plain.x + 0 : 0 });
        },
      ),
    ));
});

describe("parts on a point with an angle", () => {
  const angles = fc.integer({ min: 0, max: 719 }).map((half) => half / 2);
  const places = fc.record({ x: fc.integer({ min: -40, max: 40 }), y: fc.integer({ min: -40, max: 40 }) });
  const turned = (at: MarkPoint, by: MarkPoint): Record<string, TestFrame> => ({
    w0: { origin: { x: 8, y: 15 }, points: { hand: at } },
    l0: { origin: { x: 3.5, y: 8 }, points: { grip: by, hook: { x: 3, y: 6 } } },
    l1: { origin: { x: 3.5, y: 8 }, points: { grip: by } },
    moth: { origin: { x: 1, y: 1 }, points: {} },
  });
  const only = (at: MarkPoint, by: MarkPoint, how: Partial<PartHost> = {}, quarters = false): PlacedPart => {
    const [placed] = placedParts({ ...worldOf([lamp], CLIPS, turned(at, by)), quarters }, { ...host, ...how });
    return placed as PlacedPart;
  };

  it("are turned about their own point, which stays on the host's", () =>
    fc.assert(
      fc.property(places, places, angles, angles, fc.boolean(), (at, by, one, other, mirror) => {
        const placed = only({ ...at, angle: one }, { ...by, angle: other }, { mirror });
        const side = mirror ? -1 : 1;
        expect(placed.angle ?? 0).toBe((side * (one - other) + 720) % 360);
        const grip = turnedBy({ x: (by.x - 3.5) * side, y: by.y - 8 }, placed.angle ?? 0);
        expect(placed.x + grip.x).toBeCloseTo((at.x - 8) * side, 2);
        expect(placed.y + grip.y).toBeCloseTo(at.y - 15, 2);
      }),
    ));

  it("rotate by the host point's angle, and by nothing without one", () => {
    expect(only({ x: 12, y: 9, angle: 90 }, { x: 2, y: 0 })).toEqual({
      name: "lamp",
      frame: "l0",
      mirror: false,
      x: -4,
      y: -4.5,
      front: true,
      angle: 90,
    });
    expect(only({ x: 12, y: 9 }, { x: 2, y: 0, angle: 90 })).not.toHaveProperty("angle");
    expect(only({ x: 12, y: 9, angle: 45 }, { x: 2, y: 0, angle: 45 })).not.toHaveProperty("angle");
  });

  it("rotate to the nearest 90° in pictures", () => {
    for (const [angle, quarter] of [
      [44, undefined],
      [46, 90],
      [269.5, 270],
      [316, undefined],
    ] as const)
      expect(only({ x: 12, y: 9, angle }, { x: 2, y: 0 }, {}, true).angle).toBe(quarter);
  });

  it("carry their own parts with them", () => {
    const moth: Part = { name: "moth", host: "swing", guest: "moth", at: "hook" as MarkName, time: "own", front: true };
    const placed = placedParts(worldOf([lamp, moth], CLIPS, turned({ x: 12, y: 9, angle: 90 }, { x: 2, y: 0 })), host);
    // The hook is 0.5 left of the lamp's origin and 2 above it: turned clockwise, 2 right of it and 0.5 above.
    expect(placed[1]).toMatchObject({ name: "moth", angle: 90, x: -4 + 2, y: -4.5 - 0.5 });
  });

  it("fill the right place, at multiples of 90°", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 9 }),
        places,
        fc.constantFrom(0, 90, 180, 270),
        (w, h, origin, angle) => {
          const { size, origin: at } = placeTurned({ size: { w, h }, origin }, false, angle);
          const corners = [
            { x: 0, y: 0 },
            { x: w, y: h },
          ].map(({ x, y }) => turnedBy({ x: x - origin.x, y: y - origin.y }, angle));
          expect(Math.min(...corners.map(({ x }) => x)) + at.x).toBe(0);
          expect(Math.min(...corners.map(({ y }) => y)) + at.y).toBe(0);
          expect(Math.max(...corners.map(({ x }) => x)) + at.x).toBe(size.w);
          expect(Math.max(...corners.map(({ y }) => y)) + at.y).toBe(size.h);
        },
      ),
    ));
});
