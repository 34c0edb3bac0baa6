import { describe, expect, it } from "vitest";
import { addClip, setDelivery } from "../edit";
import { porterProject } from "../edit/project.fixture";
import type { FrameRef, Project } from "../model";
import { allMended } from "./all-mended";
import { findingsOf } from "./findings";

const ref = (column: number) => `s1/c${column}r0` as FrameRef;
const withClips = (...names: string[]) =>
  names.reduce((project: Project, name) => addClip(project, [ref(0), ref(1), ref(2)], name), porterProject());
const codes = (project: Project) => findingsOf(project).map(({ code }) => code);

describe("allMended", () => {
  it("mends many of one kind and leaves the others", () => {
    const bursts = withClips("burst_a", "burst_b", "burst_c");
    expect(codes(bursts).filter((code) => code === "endless-effect")).toHaveLength(3);
    const done = allMended(bursts, "endless-effect");
    expect(codes(done)).not.toContain("endless-effect");
    expect(codes(done)).toContain("unused-frames");
  });

  it("mends what another mending reveals", () => {
    const alike = setDelivery(withClips("go", "Go", "GO", "gO"), 0, { kind: "strips" });
    expect(codes(alike).filter((code) => code === "same-file-name")).toHaveLength(3);
    const done = allMended(alike, "same-file-name");
    expect(codes(done)).not.toContain("same-file-name");
    expect(new Set(done.clips.map(({ name }) => name.toLowerCase())).size).toBe(4);
  });

  it("returns the same project if nothing is to be mended", () => {
    const fine = withClips("walk");
    expect(allMended(fine, "endless-effect")).toBe(fine);
  });
});
