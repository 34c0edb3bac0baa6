import { describe, expect, it } from "vitest";
import {
  addClip,
  addDelivery,
  type DeliveryChange,
  placeOrigins,
  renameClip,
  renameFrame,
  renameSource,
  setDelivery,
  setStepDurations,
} from "../edit";
import { porterProject } from "../edit/project.fixture";
import type { ClipName, FrameRef, Project, Source } from "../model";
import { deliveredNames } from "./delivered-names";
import { deliveryFindings } from "./delivery-findings";
import { type Finding, mendsOf } from "./finding";
import { mended } from "./mend";

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
  expect(codes(mended(each, found as Finding))).toEqual([]);
}

describe("findings on deliveries", () => {
  it("are none if nothing is risky", () => {
    expect(codes(project)).toEqual([]);
    expect(codes(having({ packing: { extrudePx: 0 } }))).toEqual([]);
    expect(codes(having({ filter: "linear" }))).toEqual([]);
  });

  it("report bleeding with smooth scaling and bare edges or touching cells", () => {
    expectMended(having({ filter: "linear", packing: { extrudePx: 0, paddingPx: 0 } }), "bleeding", /no edges are extruded/);
    expectMended(having({ filter: "linear", kind: "grid" }), "bleeding", /its cells touch/);
    expectMended(having({ filter: "linear", kind: "strips" }), "bleeding", /its cells touch/);
  });

  it("report bleeding at fractional sizes, smooth or not", () => {
    const half = [
      { scale: 2, suffix: "@2x" },
      { scale: 0.5, suffix: "" },
    ];
    expectMended(having({ densities: half, packing: { extrudePx: 0 } }), "bleeding", /at 0.5 of its size.*no edges are extruded/);
    expectMended(having({ densities: half, kind: "grid" }), "bleeding", /at 0.5 of its size.*its cells touch/);
    expect(codes(having({ densities: half.slice(0, 1), packing: { extrudePx: 0 } }))).toEqual([]);
  });

  it("report strips and films without clips, whose pages can be delivered instead", () => {
    const none = porterProject();
    for (const kind of ["strips", "films"] as const) {
      const [found] = deliveredNames(having({ kind }, none));
      expect(found).toMatchObject({ code: "chooses-nothing", severity: "error", message: expect.stringContaining("There are no clips") });
      expect(deliveredNames(mended(having({ kind }, none), found as Finding))).toEqual([]);
      expect(deliveredNames(having({ kind }))).toEqual([]);
    }
  });

  it("report frames that would be called by more characters than an atlas may have, by their source or by a pattern", () => {
    const long = renameSource(project, (project.sources[0] as Source).id, "x".repeat(200));
    const [found] = deliveredNames(long);
    expect(found).toMatchObject({ code: "unfit-name", severity: "error", message: expect.stringContaining("by 202 characters") });
    expect(deliveredNames(mended(long, found as Finding))).toEqual([]);
    const pattern = having(
      { frameNames: "{source} {source} {n}" },
      renameSource(project, (project.sources[0] as Source).id, "x".repeat(120)),
    );
    const [other] = deliveredNames(pattern).filter(({ code }) => code === "unfit-name");
    expect(other?.message).toMatch(/Shorten the pattern/);
    const tab = deliveredNames(having({ frameNames: "a\t{n}" })).find(({ code }) => code === "unfit-name");
    expect(tab?.message).toMatch(/without a name that a file can hold/);
    expect(deliveredNames(mended(pattern, other as Finding))).toEqual([]);
  });

  it("report pages that some devices do not support", () => {
    expectMended(having({ packing: { maxPx: 8192 } }), "large-pages", /8192 px a side/);
    expectMended(having({ packing: { sides: "fixed", fixed: { w: 512, h: 6000 } } }), "large-pages", /6000 px a side/);
  });

  it("report times that GIF cannot store", () => {
    const quick = setStepDurations(project, walk, [1], 12_500);
    expect(codes(quick)).toEqual([]);
    expectMended(having({ kind: "films" }, quick), "times-not-held", /walk has some of 12.5 ms/);
    expect(deliveryFindings(having({ kind: "films", films: ["gif"] }, quick))[0]?.mend).toBeUndefined();
  });

  it("report clips whose names files cannot have", () => {
    const odd = renameClip(project, walk, "walk: up?");
    expect(codes(odd)).toEqual([]);
    expectMended(having({ kind: "strips" }, odd), "unfit-name", /which some systems do not allow/);
  });

  it("report strips of frames with different sizes", () => {
    const uneven = {
      ...project,
      sources: project.sources.map((source) => ({
        ...source,
        frames: source.frames.map((frame) => (frame.key === "c1r0" ? { ...frame, rect: { ...frame.rect, h: 7 } } : frame)),
      })),
    };
    expect(codes(uneven)).toEqual([]);
    expectMended(having({ kind: "strips" }, uneven), "unequal-strip", /have 2 sizes. On the strip of "atlas"/);
  });

  it("report a choice that matches nothing", () =>
    expectMended(having({ choice: { of: "clips", names: ["gone"] } }), "chooses-nothing", /Nothing is chosen for delivery/));

  it("report files that some systems do not distinguish, in one delivery or in two", () => {
    const twins = addClip(project, [ref(2)], "Walk");
    expect(codes(having({}, twins))).toEqual([]);
    expectMended(
      having({ kind: "strips" }, twins),
      "same-file-name",
      /would make atlas-Walk.png, but some systems do not distinguish it from atlas-walk.png/,
    );
    const two = addDelivery(addDelivery(having({ name: "a", kind: "strips" }), "a-walk", null), "other", null);
    expectMended(two, "same-file-name", /The delivery "a-walk" would make a-walk.png, but there is one already/);
  });

  it("report a name reserved by a system", () => {
    const kept = renameFrame(having({ kind: "singles" }), ref(0), "nul");
    expectMended(kept, "unfit-name", /a file named atlas\/nul.png/);
  });

  it("report a source whose name files cannot have once, not once for each of its frames", () => {
    const source = project.sources[0] as Source;
    const singles = having({ kind: "singles" }, renameSource(project, source.id, "con"));
    expect(codes(singles)).toEqual(["unfit-name"]);
    expectMended(singles, "unfit-name", /named atlas\/con\/0.png, which some systems do not allow. The same is true of 11 other files./);
    expect(deliveryFindings(singles)[0]?.where).toBe('source "con"');
    const patterned = having({ kind: "singles", frameNames: "con/{n:2}" });
    expect(deliveryFindings(patterned).map(({ code, where }) => [code, where])).toEqual([["unfit-name", 'delivery "atlas"']]);
  });

  it("report a pattern that gives several frames the same name", () =>
    expectMended(having({ kind: "singles", frameNames: "{source}" }), "same-frame-name", /12 frames have only 1 name;/));

  it("report pattern names that are the start of others, only if leading zeros help", () => {
    expect(codes(having({ frameNames: "{name}" }))).toEqual([]);
    expectMended(having({ frameNames: "frame{n}" }), "frame-name-begins-another", /The name frame1 begins frame10\. Code that/);
    expect(codes(having({ frameNames: "frame{n:2}" }))).toEqual([]);
  });

  it("report origins outside their frames", () =>
    expectMended(placeOrigins(project, "a frame", new Map([[ref(0), { x: -3, y: 4 }]])), "origin-outside", /1 frame stands on a point/));
});

describe("steps that a table in ticks cannot show", () => {
  const short = setStepDurations(having({ data: { times: true, ticksPerSecond: 60 } }), walk, [1], 5000);
  const found = deliveryFindings(short).find(({ code }) => code === "no-ticks") as Finding;

  it("are a finding, with three ways to mend it", () => {
    expect(found.message).toMatch(/At 60 ticks a second 1 of its steps has no tick of its own/);
    expect(mendsOf(found).map(({ label }) => label)).toEqual([
      "Give each at least one tick, 16.667 ms",
      "Make the clip 3.3 times as long",
      "Count 100 ticks a second",
    ]);
  });

  it("are there no more after any of them", () => {
    for (const mend of mendsOf(found)) expect(codes(mended(short, { ...found, mend })), mend.label).toEqual([]);
  });

  it("are none without a table, or if the clip is not delivered", () => {
    expect(codes(setStepDurations(project, walk, [1], 5000))).toEqual([]);
    expect(codes(setDelivery(addClip(short, [ref(2)], "idle"), 0, { choice: { of: "clips", names: ["idle"] } }))).toEqual([]);
  });
});
