import { dropFrames, removeSource } from "@caravan/core/edit";
import { type ClipName, emptyProject, type FrameRef, keptRefs, type Source } from "@caravan/core/model";
import fc from "fast-check";
import { beforeEach, describe, expect, it } from "vitest";
import { PORTER, porterProject } from "../../../../packages/core/src/edit/project.fixture";
import {
  beginAt,
  chooseClip,
  chooseReelSource,
  chosenSource,
  go,
  goToMarks,
  pickedFrames,
  pickRun,
  rowRefs,
  START,
  togglePick,
  togglePicks,
  useView,
} from "./view";

const project = porterProject();
const source = project.sources[0] as Source;
const order = keptRefs(source);
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const picked = () => useView.getState().picked;

beforeEach(() => useView.setState(START));

describe("picking", () => {
  it("keeps the order of the clicks; a second click unpicks a frame", () => {
    for (const each of [ref(2), ref(0), ref(3), ref(0)]) togglePick(each);
    expect(picked()).toEqual([ref(2), ref(3)]);
  });

  it("picks a run in its direction, from the last pick", () => {
    togglePick(ref(2));
    pickRun(order, ref(0, 1));
    expect(picked()).toEqual([ref(2), ref(3), ref(0, 1)]);
    pickRun(order, ref(0));
    expect(picked()).toEqual([ref(2), ref(3), ref(0, 1), ref(1), ref(0)]);
  });

  it("picks a whole row, and unpicks it if all of it was picked", () => {
    togglePick(ref(1, 2));
    togglePicks(rowRefs(source, 2));
    expect(picked()).toEqual([ref(1, 2), ref(0, 2), ref(2, 2), ref(3, 2)]);
    togglePicks(rowRefs(source, 2));
    expect(picked()).toEqual([]);
  });

  it("never picks a frame twice, whatever is clicked", () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat({ max: 11 }), fc.nat({ max: 2 })), { maxLength: 20 }), (clicks) => {
        useView.setState(START);
        for (const [k, way] of clicks) {
          const each = order[k] as FrameRef;
          if (way === 0) togglePick(each);
          else if (way === 1) pickRun(order, each);
          else togglePicks(rowRefs(source, k % 3));
        }
        expect(new Set(picked()).size).toBe(picked().length);
      }),
    ));

  it("forgets frames that were dropped or are missing, and remembers them if they return", () => {
    togglePicks([ref(0), ref(1)]);
    expect(pickedFrames(dropFrames(project, [ref(0)]), useView.getState())).toEqual([ref(1)]);
    expect(pickedFrames(emptyProject("x"), useView.getState())).toEqual([]);
    expect(pickedFrames(project, useView.getState())).toEqual([ref(0), ref(1)]);
  });
});

describe("the place", () => {
  it("of a clip at Marks is that clip, even after stepping through a source", () => {
    chooseReelSource(PORTER);
    useView.setState({ steps: [9] });
    goToMarks("walk" as ClipName);
    expect(useView.getState()).toMatchObject({ stop: "marks", clipName: "walk", reelSource: null, steps: [] });
  });

  it("is the earlier one, or the stop where work begins, with nothing carried over", () => {
    togglePick(ref(0));
    beginAt(project, { stop: "ship", source: "s1", clip: "walk" });
    expect(useView.getState()).toEqual({ ...START, stop: "ship", sourceId: "s1", clipName: "walk" });
    beginAt(project, { stop: "a stop of another version", source: null, clip: null });
    expect(useView.getState().stop).toBe("frames");
    beginAt(emptyProject("x"), undefined);
    expect(useView.getState().stop).toBe("sources");
  });

  it("falls back to the first source if the selected one is missing", () => {
    expect(chosenSource(project, { sourceId: PORTER })?.name).toBe("porter");
    expect(chosenSource(removeSource(project, PORTER), { sourceId: PORTER })).toBeNull();
  });

  it("lets go of the row under the pointer when leaving, and of chosen steps with their clip", () => {
    useView.setState({ hoverRow: 2, steps: [1, 2], clipName: "a" as ClipName });
    chooseClip("a" as ClipName);
    expect(useView.getState().steps).toEqual([1, 2]);
    chooseClip("b" as ClipName);
    go("clips");
    expect(useView.getState()).toMatchObject({ steps: [], hoverRow: null, stop: "clips" });
  });
});
