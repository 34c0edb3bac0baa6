import { describe, expect, it } from "vitest";
import { type ClipName, checkDocument, type Frame, type FrameRef, type Project, projectFromFile, projectToFile } from "../model";
import { addClip, copyEvents, removeData, renameData, setData, setEventValue, setStepEvents } from ".";
import { cutSource } from "./cutting";
import { NO_SPACE, PORTER, porterCoverage, porterProject } from "./project.fixture";

const refs = ["s1/c0r0", "s1/c1r0", "s1/c2r0"] as FrameRef[];
const [walk, run] = ["walk", "run"] as ClipName[] as [ClipName, ClipName];
const base = [walk, run].reduce((project: Project, name) => addClip(project, refs, name), porterProject());
const frame = (project: Project, key: string) => project.sources[0]?.frames.find((each) => each.key === key) as Frame;
const stored = (project: Project) => projectFromFile(JSON.parse(JSON.stringify(projectToFile(project))), "again");

describe("data", () => {
  it("is stored on frames and clips, in order, and is read back from the file", () => {
    let project = setData(base, { frames: refs.slice(0, 2) }, "0001", "first");
    project = setData(project, { frames: refs.slice(0, 1) }, "heavy", true);
    project = setData(project, { clips: [walk, run] }, "cost", { gold: 3 });
    expect(frame(project, "c0r0").data).toEqual([
      { name: "0001", value: "first" },
      { name: "heavy", value: true },
    ]);
    expect(frame(project, "c2r0").data).toBeUndefined();
    expect(project.clips.map(({ data }) => data?.[0]?.value)).toEqual([{ gold: 3 }, { gold: 3 }]);
    checkDocument(project, "written");
    expect(stored(project)).toEqual(project);
  });

  it("is changed in place, renamed and removed; setting an equal value changes nothing", () => {
    const two = setData(setData(base, { clips: [walk] }, "a", 1), { clips: [walk] }, "b", 2);
    expect(setData(two, { clips: [walk] }, "a", 1)).toBe(two);
    const changed = renameData(setData(two, { clips: [walk] }, "a", 9), { clips: [walk] }, "a", "c");
    expect(changed.clips[0]?.data).toEqual([
      { name: "c", value: 9 },
      { name: "b", value: 2 },
    ]);
    expect(() => renameData(two, { clips: [walk] }, "a", "b")).toThrow(/"b" already/);
    const none = removeData(removeData(two, { clips: [walk] }, "a"), { clips: [walk] }, "b");
    expect(none).toEqual(base);
    expect(() => setData(base, { clips: [walk] }, " ", 1)).toThrow(/name/i);
    expect(() => setData(base, { clips: [walk] }, "a", Number.NaN)).toThrow(/JSON/);
  });

  it("stays on its frame when the sheet is cut again", () => {
    const project = setData(base, { frames: refs }, "heavy", true);
    const cell = { w: 8, h: 10 };
    const again = cutSource(project, PORTER, { by: "cell", cell, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: true }, porterCoverage());
    expect(frame(again, "c1r0").data).toEqual([{ name: "heavy", value: true }]);
  });
});

describe("values of events", () => {
  const fired = setStepEvents(base, walk, [0, 2], ["footfall", "dust"]);

  it("are set where the event fires, stay with it, and are removed with it", () => {
    const valued = setEventValue(fired, walk, [0, 1, 2], "footfall", "sand");
    const values = (project: Project) =>
      project.clips[0]?.steps.map(({ eventValues }) => eventValues?.map(({ value }) => value).join() ?? "");
    expect(values(valued)).toEqual(["sand", "", "sand"]);
    expect(values(setStepEvents(valued, walk, [0], ["dust", "footfall"]))).toEqual(["sand", "", "sand"]);
    const less = setStepEvents(valued, walk, [0], ["dust"]);
    expect(values(less)).toEqual(["", "", "sand"]);
    expect(less.clips[0]?.steps[0]).not.toHaveProperty("eventValues");
    expect(setEventValue(valued, walk, [0, 2], "footfall", undefined)).toEqual(fired);
    checkDocument(less, "written");
    expect(stored(less)).toEqual(less);
  });

  it("are copied with the events of a clip", () => {
    const valued = setEventValue(fired, walk, [0], "dust", [1, 2]);
    const copied = copyEvents(valued, walk, [run]);
    expect(copied.clips[1]?.steps.map(({ events, eventValues }) => [events, eventValues])).toEqual(
      valued.clips[0]?.steps.map(({ events, eventValues }) => [events, eventValues]),
    );
    expect(copyEvents(copied, walk, [run])).toBe(copied);
  });

  it("without their event are refused in a file", () => {
    const file = JSON.parse(JSON.stringify(projectToFile(setEventValue(fired, walk, [0], "dust", 1))));
    file.clips[0].steps[0].events = ["footfall"];
    expect(() => projectFromFile(file, "hand-made.json")).toThrow(/value for the event "dust"/);
  });
});
