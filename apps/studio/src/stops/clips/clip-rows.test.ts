import { addAction, addClip, mirrorMissing, setPetal } from "@caravan/core/edit";
import type { ActionName, ClipName, FrameRef } from "@caravan/core/model";
import { describe, expect, it } from "vitest";
import { porterProject } from "../../../../../packages/core/src/edit/project.fixture";
import { clipRows, type HeadingOf } from "./clip-rows";

const FRAMES = ["s1/c0r0", "s1/c1r0"] as FrameRef[];
const WALK = "walk" as ActionName;
const heading: HeadingOf = ({ name }, count) => ({ title: name, fact: String(count), folded: false, onFold: () => {} });

/** An action of four ways that shows two clips, and mirrors one of them. */
function acting(names: readonly string[]) {
  const clips = names.reduce((project, name) => addClip(project, FRAMES, name), porterProject());
  const named = setPetal(addAction(clips, "walk", 4), WALK, "s", { clip: "walk_s" as ClipName });
  return mirrorMissing(setPetal(named, WALK, "e", { clip: "walk_e" as ClipName }), WALK);
}

describe("the rows of clips", () => {
  it("are listed under their action if they are consecutive, each with its facing", () => {
    const { clips, actions } = acting(["idle", "walk_s", "walk_e"]);
    const rows = clipRows(clips, actions, heading);
    expect(rows.map(({ name, fact, under }) => [name, fact, under?.title])).toEqual([
      ["idle", "0.20 s", undefined],
      ["walk_s", "S 0.20 s", "walk"],
      ["walk_e", "E 0.20 s", "walk"],
    ]);
    expect(rows[1]?.under).toBe(rows[2]?.under);
  });

  it("keep the project's order: separate clips of an action have no heading", () => {
    const { clips, actions } = acting(["walk_s", "idle", "walk_e"]);
    expect(clipRows(clips, actions, heading).map(({ name, under }) => [name, under])).toEqual([
      ["walk_s", undefined],
      ["idle", undefined],
      ["walk_e", undefined],
    ]);
  });
});
