import type { Area } from "@caravan/core/model";
import { type Setting, stageFor } from "@caravan/core/stage";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { draggedArea, type Grab, grabAt, LEAST_SIDE, stageWith } from "./grab";

const zone: Area = { x: 100, y: 50, w: 40, h: 30 };
const stage = {
  ...stageFor({ sources: [], clips: [], actions: [] } as never, null, "side"),
  zones: [{ name: "camp", area: zone, on: "entering" as const }],
  platforms: [{ x: 110, y: 60, w: 20, h: 5 }],
};
const setting = { stage } as unknown as Setting;

describe("taking hold of things on the stage", () => {
  it("takes the edge or corner nearby, the middle elsewhere, and the topmost thing", () => {
    expect(grabAt(setting, { x: 101, y: 65 }, 3)).toMatchObject({ list: "zones", place: 0, edges: { x: "left", y: null } });
    expect(grabAt(setting, { x: 141, y: 79 }, 3)).toMatchObject({ list: "zones", edges: { x: "right", y: "bottom" } });
    expect(grabAt(setting, { x: 105, y: 75 }, 3)).toMatchObject({ list: "zones", edges: { x: null, y: null } });
    expect(grabAt(setting, { x: 120, y: 62.5 }, 0.5)).toMatchObject({ list: "platforms", edges: { x: null, y: null } });
    expect(grabAt(setting, { x: 300, y: 62 }, 3)).toBeNull();
  });

  const grabs = fc.record({
    area: fc.record({
      x: fc.integer({ min: -100, max: 500 }),
      y: fc.integer({ min: -100, max: 500 }),
      w: fc.integer({ min: LEAST_SIDE, max: 300 }),
      h: fc.integer({ min: LEAST_SIDE, max: 300 }),
    }),
    edges: fc.record({ x: fc.constantFrom("left", "right", null), y: fc.constantFrom("top", "bottom", null) }),
    to: fc.record({ x: fc.double({ min: -900, max: 900, noNaN: true }), y: fc.double({ min: -900, max: 900, noNaN: true }) }),
  });

  it("moves all of it, or pulls an edge while the other stays, and never turns it inside out", () =>
    fc.assert(
      fc.property(grabs, ({ area, edges, to }) => {
        const grab: Grab = { list: "zones", place: 0, area, from: { x: 0, y: 0 }, edges };
        const now = draggedArea(grab, to);
        expect(Object.values(now).every(Number.isInteger)).toBe(true);
        expect(Math.min(now.w, now.h)).toBeGreaterThanOrEqual(LEAST_SIDE);
        if (edges.x === null && edges.y === null) expect([now.w, now.h]).toEqual([area.w, area.h]);
        if (edges.x === "left") expect(now.x + now.w).toBe(area.x + area.w);
        if (edges.x === "right") expect(now.x).toBe(area.x);
        if (edges.y === "top") expect(now.y + now.h).toBe(area.y + area.h);
        if (edges.y === "bottom") expect(now.y).toBe(area.y);
      }),
    ));

  it("changes nothing else on the stage", () => {
    const grab = grabAt(setting, { x: 105, y: 75 }, 3) as Grab;
    expect(stageWith(stage, grab, { ...zone, x: 7 })).toEqual({
      zones: [{ ...stage.zones[0], area: { ...zone, x: 7 } }],
      platforms: stage.platforms,
      extras: [],
    });
  });
});
