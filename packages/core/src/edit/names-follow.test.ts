import { describe, expect, it } from "vitest";
import { findingsOf, mended } from "../check";
import type { ActionName, ClipName, FrameRef, Project } from "../model";
import { addAction, renameAction, setPetal } from "./actions";
import { joinClips, mergeEqualSteps, pasteSteps, splitClip } from "./clip-parts";
import { addClip, insertSteps, moveSteps, removeClip, removeSteps, renameClip, setClipRules } from "./clips";
import { setDelivery } from "./deliveries";
import { rowsAsFacings } from "./making-actions";
import { addMarkKind, renameMarkKind, setMarkLook } from "./mark-kinds";
import { porterProject } from "./project.fixture";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const walk = "walk" as ClipName;
const base = addClip(
  addClip(
    porterProject(),
    [0, 1, 2, 3].map((k) => ref(k)),
    "walk",
  ),
  [ref(0, 1)],
  "idle",
);
const choosing = (names: string[], from: Project = base) => setDelivery(from, 0, { choice: { of: "clips", names, pattern: "" } });
const chosen = (project: Project) => project.deliveries[0]?.choice.names;
const loopFrom = (project: Project, name = "walk") => project.clips.find((clip) => clip.name === name)?.loopFrom;

describe("a delivery's choice", () => {
  it("follows a clip that is renamed, split, joined or made into facings", () => {
    const project = choosing(["walk"]);
    expect(chosen(renameClip(project, walk, "stroll"))).toEqual(["stroll"]);
    expect(chosen(splitClip(project, walk, [2]))).toEqual(["walk", "walk-2"]);
    expect(chosen(joinClips(choosing(["idle", "walk"]), walk, ["idle" as ClipName]))).toEqual(["walk"]);
    const twoRows = addClip(porterProject(), [ref(0), ref(1), ref(0, 1), ref(1, 1)], "turn");
    expect(chosen(rowsAsFacings(choosing(["turn"], twoRows), "turn" as ClipName, { first: "e", turn: "clockwise" } as never))).toHaveLength(
      2,
    );
  });

  it("follows an action that is renamed", () => {
    const project = setPetal(addAction(base, "go", 4), "go" as ActionName, "e", { clip: walk });
    const delivering = setDelivery(project, 0, { choice: { of: "actions", names: ["go"], pattern: "" } });
    expect(chosen(renameAction(delivering, "go" as ActionName, "move"))).toEqual(["move"]);
  });

  it("is a finding when it is removed, and is mended", () => {
    const gone = removeClip(choosing(["walk", "idle"]), walk);
    const finding = findingsOf(gone).find(({ code }) => code === "chosen-gone");
    expect(finding?.message).toMatch(/chooses walk, but no such clip/);
    expect(chosen(mended(gone, finding as never))).toEqual(["idle"]);
  });
});

describe("the step where a loop continues", () => {
  const looping = setClipRules(base, walk, { loopFrom: 2 });

  it("stays the same when steps are inserted, removed and moved", () => {
    expect(loopFrom(insertSteps(looping, walk, 0, [ref(0, 2), ref(1, 2)]))).toBe(4);
    expect(loopFrom(insertSteps(looping, walk, 3, [ref(0, 2)]))).toBe(2);
    expect(loopFrom(removeSteps(looping, walk, [0]))).toBe(1);
    expect(loopFrom(removeSteps(looping, walk, [2]))).toBe(2);
    expect(loopFrom(removeSteps(looping, walk, [2, 3]))).toBe(1);
    expect(loopFrom(moveSteps(looping, walk, [0], 3))).toBe(1);
    const step = looping.clips[0]?.steps[2];
    expect(loopFrom(pasteSteps(looping, walk, 0, step ? [step] : []))).toBe(3);
  });

  it("stays when equal steps are merged, clips are split and joined", () => {
    const doubled = setClipRules(insertSteps(base, walk, 1, [ref(0)]), walk, { loopFrom: 3 });
    expect(loopFrom(mergeEqualSteps(doubled, walk))).toBe(2);
    // Merging over the border of the lead-in would make the lead-in come again.
    const atBorder = setClipRules(insertSteps(base, walk, 1, [ref(0)]), walk, { loopFrom: 1 });
    expect(mergeEqualSteps(atBorder, walk)).toBe(atBorder);
    const split = splitClip(looping, walk, [1]);
    expect([loopFrom(split), loopFrom(split, "walk-2")]).toEqual([0, 1]);
    expect(loopFrom(joinClips(looping, walk, ["idle" as ClipName]))).toBe(2);
  });
});

describe("a new kind of mark that is renamed", () => {
  it("gets a fitting letter, unless a person chose one", () => {
    const added = addMarkKind(base, "box", "box");
    expect(renameMarkKind(added, "box" as never, "hurt").marks[0]?.letter).toBe("H");
    expect(renameMarkKind(setMarkLook(added, "box" as never, { letter: "7" }), "box" as never, "hurt").marks[0]?.letter).toBe("7");
  });
});
