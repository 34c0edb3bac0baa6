import { describe, expect, it } from "vitest";
import { addClip } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { keptFrames } from "./project";
import { projectFromFile, projectToFile } from "./project-file";
import type { FrameRef } from "./source";

const refs = (count: number) => Array.from({ length: count }, (_, k) => `s1/c${k}r0` as FrameRef);
const project = addClip(porterProject(), refs(4), "walk");
const file = () => JSON.parse(JSON.stringify(projectToFile(project)));
const reading =
  (change: (content: Record<string, unknown> & { clips: Record<string, unknown>[]; sources: Record<string, unknown>[] }) => void) => () => {
    const content = file();
    change(content);
    return projectFromFile(content, "caravan.json");
  };

const firstPicture = (sources: Record<string, unknown>[]) => (sources[0] as { pictures: object[] }).pictures[0] as object;

type OldDelivery = { data: { example: null; contact: boolean } };

describe("the project file", () => {
  it("of version 1, with one picture per source, is migrated", () => {
    const { readings: _readings, actions: _actions, ...old } = file();
    const sources = old.sources.map(({ pictures, ...source }: { pictures: object[] }) => ({ ...source, ...pictures[0] }));
    expect(projectFromFile({ ...old, version: 1, sources }, "old.json")).toEqual(project);
  });

  it("of version 2, before actions, is migrated", () => {
    const { actions: _actions, ...old } = file();
    expect(projectFromFile({ ...old, version: 2 }, "old.json")).toEqual(project);
  });

  it("of version 4, before examples and contact sheets, is migrated", () => {
    const { examples: _examples, ...old } = file();
    const deliveries = old.deliveries.map(({ data: { example: _example, contact: _contact, ...data }, ...delivery }: OldDelivery) => ({
      ...delivery,
      data,
    }));
    expect(projectFromFile({ ...old, version: 4, deliveries }, "old.json")).toEqual(project);
  });

  it("of version 5, before boxes and points, is migrated", () => {
    const { marks: _marks, ...old } = file();
    expect(projectFromFile({ ...old, version: 5 }, "old.json")).toEqual(project);
  });

  it("refuses an action that shows a clip that is not there, or a facing that is not on its rose", () => {
    const withAction = (facings: object) =>
      reading((content) => void Object.assign(content, { actions: [{ name: "go", ways: 4, facings }] }));
    expect(withAction({ e: { clip: "walk" } })).not.toThrow();
    expect(withAction({ e: { clip: "gone" } })).toThrow(/The action "go" shows the clip "gone", which does not exist/);
    expect(withAction({ se: { clip: "walk" } })).toThrow(/actions\.0/);
  });

  it("refuses a frame on a picture that is not there, or larger than its untrimmed size", () => {
    const frame = (sources: Record<string, unknown>[]) => (sources[0] as { frames: object[] }).frames[0] as object;
    expect(reading(({ sources }) => void Object.assign(frame(sources), { picture: 3 }))).toThrow(/a picture that it does not have/);
    expect(reading(({ sources }) => void Object.assign(frame(sources), { size: { w: 2, h: 90 } }))).toThrow(
      /larger than its own untrimmed size/,
    );
  });

  it("holds milliseconds, and gives the same project back", () => {
    expect(projectToFile(project).clips[0]?.steps[0]).toEqual({ frame: "s1/c0r0", ms: 100 });
    expect(projectFromFile(file(), "caravan.json")).toEqual(project);
  });

  it("keeps times to the microsecond", () => {
    const content = file();
    content.clips[0].steps[0].ms = 33.333;
    expect(projectFromFile(content, "x").clips[0]?.steps[0]?.duration).toBe(33_333);
  });

  it("refuses a newer version by name and number", () =>
    expect(reading((content) => void Object.assign(content, { version: 16 }))).toThrow(
      /newer Caravan \(version 16; this one reads up to 15\).*nothing was changed/,
    ));

  it("refuses anything but a project", () => {
    expect(() => projectFromFile({ frames: {} }, "atlas.json")).toThrow(/atlas\.json: This is not a Caravan project/);
    expect(() => projectFromFile(null, "x")).toThrow(/not a Caravan project/);
  });

  it("names the first field that does not fit", () => {
    expect(
      reading(({ clips }) => {
        (clips[0] as { steps: { ms: number }[] }).steps[1] = { ms: -1 } as never;
      }),
    ).toThrow(/clips\.0\.steps\.1/);
    expect(reading(({ sources }) => void Object.assign(firstPicture(sources), { width: 0 }))).toThrow(/sources\.0\.pictures\.0\.width/);
  });

  it("refuses paths that leave the project's folder", () => {
    for (const path of ["../x.png", "/etc/x.png", "art/../../x.png", "C:/x.png", "art\\x.png", ""])
      expect(
        reading(({ sources }) => void Object.assign(firstPicture(sources), { file: path })),
        path,
      ).toThrow(/sources\.0\.pictures\.0\.file/);
  });

  it("refuses two clips of one name, two sources of one id, frames beyond their picture, loops beyond their clip", () => {
    expect(reading(({ clips }) => void clips.push({ ...clips[0] }))).toThrow(/two clips named "walk"/);
    expect(reading(({ sources }) => void sources.push({ ...sources[0], name: "other" }))).toThrow(/two sources with the id "s1"/);
    expect(reading(({ sources }) => void Object.assign(firstPicture(sources), { width: 20 }))).toThrow(/reaches beyond its 20/);
    expect(reading(({ clips }) => void Object.assign(clips[0] as object, { loopFrom: 4 }))).toThrow(/loops from step 4/);
  });

  it("counts frames of all sources that are not dropped", () => expect(keptFrames(project)).toHaveLength(12));
});
