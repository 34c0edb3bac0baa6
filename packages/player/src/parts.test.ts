import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Atlas } from "./atlas";
import { createPlayer as createPlain } from "./index";
import { createParts, createPlayer } from "./parts";

const frame = (origin: { x: number; y: number }, points: Record<string, { x: number; y: number }> = {}) => ({
  ...{ page: 0, rect: { x: 0, y: 0, w: 1, h: 1 }, turned: false, inset: { x: 0, y: 0 }, size: { w: 16, h: 16 } },
  ...{ origin, points },
});

const ATLAS: Atlas = {
  ...{ format: "caravan-atlas", version: 1, pages: [] },
  frames: {
    w0: frame({ x: 8, y: 15 }, { hand: { x: 12, y: 9 } }),
    w1: frame({ x: 8, y: 15 }, { hand: { x: 11, y: 8 } }),
    l0: frame({ x: 3, y: 8 }, { ring: { x: 2, y: 0 } }),
    l1: frame({ x: 3, y: 8 }, { ring: { x: 4, y: 1 } }),
  },
  clips: {
    "walk-e": {
      steps: [
        { frame: "w0", ms: 100 },
        { frame: "w1", ms: 100, parts: { lamp: { front: false } } },
      ],
    },
    swing: {
      steps: [
        { frame: "l0", ms: 70 },
        { frame: "l1", ms: 70 },
      ],
    },
    once: { steps: [{ frame: "w0", ms: 100 }], playback: "once" },
  },
  actions: { walk: { facings: { e: { clip: "walk-e" }, w: { clip: "walk-e", mirror: true } } } },
  parts: [
    { name: "lamp", host: "walk", guest: "swing", at: "hand", by: "ring", time: "own", front: true },
    { name: "spare", host: "once", guest: "swing", at: "hand", time: "together", front: true },
  ],
};

describe("a player with parts", () => {
  it("returns them together with the usual result, at any rate of the game", () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 230 }), { minLength: 1, maxLength: 12 }), fc.boolean(), (steps, west) => {
        const [player, plain] = [createPlayer(ATLAS), createPlain(ATLAS)];
        for (const each of [player, plain]) each.play("walk", { facing: west ? "w" : "e" });
        let elapsed = 0;
        for (const ms of steps) {
          elapsed += ms;
          const { parts, ...now } = player.advance(ms);
          expect(now).toEqual(plain.advance(ms));
          const second = Math.floor(elapsed / 100) % 2 === 1;
          const swung = Math.floor(elapsed / 70) % 2 === 1;
          const [at, by] = [second ? { x: 3, y: -7 } : { x: 4, y: -6 }, swung ? { x: 1, y: -7 } : { x: -1, y: -8 }];
          const [x, y] = [(west ? -1 : 1) * (at.x - by.x), at.y - by.y];
          expect(parts).toEqual([{ name: "lamp", frame: swung ? "l1" : "l0", mirror: west, x, y, front: !second }]);
        }
      }),
    ));

  it("keeps swinging when it turns, and restarts when it does", () => {
    const player = createPlayer(ATLAS);
    expect(player.advance(5).parts).toEqual([]);
    player.play("walk", { facing: "e" });
    expect(player.advance(80).parts[0]?.frame).toBe("l1");
    player.play("walk", { facing: "w" });
    expect(player.advance(0).parts[0]).toMatchObject({ frame: "l1", mirror: true });
    player.play("walk", { restart: true });
    expect(player.advance(0).parts[0]?.frame).toBe("l0");
    player.play("once");
    expect(player.advance(0).parts).toEqual([{ name: "spare", frame: "l0", mirror: false, x: 4, y: -6, front: true }]);
  });

  it("does the same for anything else that reports what plays", () => {
    const partsOf = createParts(ATLAS);
    const now = { clip: "walk-e", step: 0, mirror: false, visible: true, facing: "e", ms: 0 } as const;
    expect(partsOf({ ...now, sinceMs: 75 })[0]?.frame).toBe("l1");
    expect(partsOf({ ...now, visible: false })).toEqual([]);
    expect(partsOf({ ...now, clip: null })).toEqual([]);
  });
});
