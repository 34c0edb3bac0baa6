import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addClip, renameClip, setClipRules } from "../edit";
import { porterProject } from "../edit/project.fixture";
import type { ClipName, FrameRef, Project } from "../model";
import { same } from "../three-way";
import { differenceInWords, differencesBetween } from "./differences";

const base = ["walk", "idle", "hit"].reduce((project, name) => addClip(project, ["s1/c0r0" as FrameRef], name), porterProject());
const inWords = (after: Project) => differencesBetween(base, after).map(differenceInWords);

describe("the differences between two versions of a project", () => {
  it("are named: renamed, new, removed, changed", () => {
    const stride = renameClip(base, "walk" as ClipName, "stride");
    expect(inWords(addClip(stride, ["s1/c1r0" as FrameRef], "jump"))).toEqual(["clips: walk → stride renamed", "clips: jump new"]);
    expect(inWords(setClipRules(stride, "stride" as ClipName, { playback: "once" }))).toEqual([
      "clips: walk → stride renamed",
      "clips: stride changed",
    ]);
    // Of two equal clips nobody can tell which one got which name.
    expect(inWords(renameClip(stride, "idle" as ClipName, "rest"))).toEqual(["clips: stride, rest new", "clips: walk, idle gone"]);
    expect(inWords(setClipRules(base, "idle" as ClipName, { playback: "once" }))).toEqual(["clips: idle changed"]);
    expect(inWords({ ...base, name: "another" })).toEqual(["project name: changed"]);
  });

  it("count reordered items, and list no more names than one reads", () => {
    expect(inWords({ ...base, clips: base.clips.toReversed() })).toEqual(["clips: in another order"]);
    const many = ["a", "b", "c", "d", "e", "f"].reduce((project, name) => addClip(project, ["s1/c0r0" as FrameRef], name), base);
    expect(inWords(many)).toEqual(["clips: a, b, c, d and 2 more new"]);
  });

  it("are none exactly if both are equal", () =>
    fc.assert(
      fc.property(fc.shuffledSubarray([0, 1, 2]), fc.boolean(), (kept, once) => {
        const clips = kept.map((k) => base.clips[k] as (typeof base.clips)[number]);
        const picked = { ...base, clips };
        const after = once && clips[0] ? setClipRules(picked, clips[0].name, { playback: "once" }) : picked;
        expect(differencesBetween(base, after).length === 0).toBe(same(base, after));
      }),
    ));
});
