import { describe, expect, it } from "vitest";
import { dropFrames, setClearing } from "../edit";
import { PORTER, porterCoverage, porterProject } from "../edit/project.fixture";
import { frameRef, keptFrames } from "../model";
import type { Ground } from "../raster";
import { NOTHING_SEEN, type SeenArt } from "./art-findings";
import { findingsOf } from "./findings";

const SHA = "a".repeat(64);
const WHITE: Ground = { kind: "plain", clearing: { colours: ["#ffffff"], tolerance: 6, from: "edges", fringe: false } };
const project = porterProject();
const found = (seen: Partial<SeenArt>, of = project) =>
  findingsOf(of, { ...NOTHING_SEEN, ...seen }).filter(({ code }) => code === "missing-art" || code === "opaque-ground");

describe("findings on art", () => {
  it("are none for unread pictures", () => expect(found({})).toEqual([]));

  it("report missing pictures, which stops delivery", () => {
    const [finding] = found({ missing: new Set([SHA]) });
    expect(finding).toMatchObject({ code: "missing-art", severity: "error", place: { stop: "sources", source: PORTER } });
    expect(finding?.message).toMatch(/porter\.png is missing\. Add the art again/);
  });

  it("report an opaque background, and clear it", () => {
    const [finding] = found({ grounds: new Map([[SHA, WHITE]]) });
    expect(finding?.message).toBe("Its 12 frames stand on an opaque background of #ffffff, also in the game.");
    expect(finding?.mend).toEqual({ label: "Clear the background", clears: { source: PORTER, clearing: WHITE.clearing } });
  });

  it("keep the taking away of specks when the ground is cleared too", () => {
    const specked = setClearing(project, PORTER, { ...WHITE.clearing, colours: [], specks: 2 }, [porterCoverage()]);
    const [finding] = found({ grounds: new Map([[SHA, WHITE]]) }, specked);
    expect(finding?.mend).toMatchObject({ clears: { clearing: { colours: ["#ffffff"], specks: 2 } } });
  });

  it("do not report a cleared background, or a sheet without delivered frames", () => {
    const grounds = new Map([[SHA, WHITE]]);
    expect(found({ grounds }, setClearing(project, PORTER, WHITE.clearing, [porterCoverage()]))).toEqual([]);
    const all = keptFrames(project).map(({ source, frame }) => frameRef(source, frame));
    expect(found({ grounds }, dropFrames(project, all))).toEqual([]);
  });
});
