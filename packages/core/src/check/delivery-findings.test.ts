import { describe, expect, it } from "vitest";
import { addClip, type DeliveryChange, placeOrigins, renameClip, setDelivery, setStepDurations } from "../edit";
import { porterProject } from "../edit/project.fixture";
import type { ClipName, FrameRef, Project } from "../model";
import { deliveryFindings } from "./delivery-findings";

const ref = (column: number) => `s1/c${column}r0` as FrameRef;
const project = addClip(porterProject(), [ref(0), ref(1)], "walk");
const walk = "walk" as ClipName;
const having = (change: DeliveryChange, from: Project = project) => setDelivery(from, 0, change);
const codes = (each: Project) => deliveryFindings(each).map(({ code }) => code);

/** Its only finding is of this code, and is gone when mended. */
function expectMended(each: Project, code: string, message: RegExp): void {
  const [found, ...others] = deliveryFindings(each);
  expect(others).toEqual([]);
  expect(found).toMatchObject({ code });
  expect(found?.message).toMatch(message);
  expect(codes(found?.mend?.apply(each) as Project)).toEqual([]);
}

describe("findings on deliveries", () => {
  it("are none where nothing is risky", () => {
    expect(codes(project)).toEqual([]);
    expect(codes(having({ packing: { extrudePx: 0 } }))).toEqual([]);
    expect(codes(having({ filter: "linear" }))).toEqual([]);
  });

  it("tell of bleeding where smooth scaling meets bare edges or touching cells", () => {
    expectMended(having({ filter: "linear", packing: { extrudePx: 0, paddingPx: 0 } }), "bleeding", /no edge pixels are repeated/);
    expectMended(having({ filter: "linear", kind: "grid" }), "bleeding", /its cells touch/);
    expectMended(having({ filter: "linear", kind: "strips" }), "bleeding", /its cells touch/);
  });

  it("tell of pages that not every device takes", () => {
    expectMended(having({ packing: { maxPx: 8192 } }), "large-pages", /8192 px a side/);
    expectMended(having({ packing: { sides: "fixed", fixed: { w: 512, h: 6000 } } }), "large-pages", /6000 px a side/);
  });

  it("tell of times that GIF cannot hold", () => {
    const quick = setStepDurations(project, walk, [1], 12_500);
    expect(codes(quick)).toEqual([]);
    expectMended(having({ kind: "films" }, quick), "times-not-held", /walk has some of 12.5 ms/);
    expect(deliveryFindings(having({ kind: "films", films: ["gif"] }, quick))[0]?.mend).toBeUndefined();
  });

  it("tell of clips whose names no file can have", () => {
    const odd = renameClip(project, walk, "walk: up?");
    expect(codes(odd)).toEqual([]);
    expectMended(having({ kind: "strips" }, odd), "unfit-name", /not every system lets a file be called so/);
  });

  it("tell of origins outside their frames", () =>
    expectMended(placeOrigins(project, "a frame", new Map([[ref(0), { x: -3, y: 4 }]])), "origin-outside", /1 frame stands on a point/));
});
