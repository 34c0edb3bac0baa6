import { describe, expect, it } from "vitest";
import { porterProject } from "../edit/project.fixture";
import type { Clip } from "../model";
import { findingsOf } from "./findings";
import { guarded } from "./guarded";

describe("guarded", () => {
  it("makes a check that throws a finding about itself", () => {
    const [finding] = guarded('clip "walk"', () => {
      throw new TypeError("no such thing");
    });
    expect(finding).toMatchObject({ code: "check-failed", severity: "warning", where: 'clip "walk"' });
    expect(finding?.message).toContain("no such thing");
  });

  it("lets all other checks of a project run", () => {
    const project = porterProject();
    // Steps that are no list make every check of this clip throw.
    const broken = { name: "broken", steps: null, playback: "loop", times: 0, loopFrom: 0, after: "hold", doubleEnds: false };
    const found = findingsOf({ ...project, clips: [broken as unknown as Clip], actions: [] });
    expect(found.some(({ code }) => code === "check-failed")).toBe(true);
    expect(findingsOf({ ...project, sources: [], clips: [broken as unknown as Clip] }).map(({ code }) => code)).toContain("nothing-cut");
  });
});
