import { addClip, dropFrames } from "@caravan/core/edit";
import type { ClipName, FrameRef, SourceId } from "@caravan/core/model";
import { describe, expect, it } from "vitest";
import { porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { chosenReel } from "./reel";

const PORTER = "s1" as SourceId;
const ref = (column: number) => `s1/c${column}r0` as FrameRef;
const cut = porterProject();
const project = addClip(cut, [ref(0), ref(1)], "walk");
const nothing = { clipName: null, reelSource: null };

describe("the frames that Marks steps through", () => {
  it("is the chosen clip, the project's own", () => {
    expect(chosenReel(project, { ...nothing, clipName: "walk" as ClipName })).toEqual({ clip: project.clips[0], source: null });
    expect(chosenReel(project, { ...nothing, clipName: "gone" as ClipName })?.clip).toBe(project.clips[0]);
  });

  it("is a source when that was chosen, its dropped frames left out, the same for the same source", () => {
    const chosen = { ...nothing, reelSource: PORTER };
    expect(chosenReel(project, chosen)?.clip.steps).toHaveLength(12);
    expect(chosenReel(project, chosen)).toBe(chosenReel(project, chosen));
    expect(chosenReel(dropFrames(project, [ref(3)]), chosen)?.clip.steps.map(({ frame }) => frame)).not.toContain(ref(3));
  });

  it("is the first source that is cut while there is no clip, and nothing while there is neither", () => {
    expect(chosenReel(cut, nothing)).toMatchObject({ clip: { name: "porter" }, source: { id: PORTER } });
    expect(chosenReel({ ...cut, sources: [] }, nothing)).toBeNull();
  });
});
