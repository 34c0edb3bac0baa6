import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addAction, addBox, addClip, addMarkKind, setPetal } from "../edit";
import { porterProject } from "../edit/project.fixture";
import type { ActionName } from "./action";
import type { ClipName } from "./clip";
import { checkDocument } from "./document-check";
import type { MarkName } from "./marks";
import { projectToFile } from "./project-file";
import { salvaged } from "./salvage";
import type { FrameRef } from "./source";

const refs = ["s1/c0r0", "s1/c1r0"] as FrameRef[];
function whole() {
  let project = addMarkKind(porterProject(), "box", "body");
  for (const name of ["walk", "run"]) project = addClip(project, refs, name);
  project = setPetal(addAction(project, "go", 2), "go" as ActionName, "e", { clip: "walk" as ClipName });
  return addBox(project, "walk", refs, "body" as MarkName, refs[0] as FrameRef, { x: 1, y: 1, w: 2, h: 2 });
}
// biome-ignore lint/suspicious/noExplicitAny: every test damages it in a different place
const file = (): any => JSON.parse(JSON.stringify(projectToFile(whole())));

describe("salvaging", () => {
  it("of a sound document returns it, and nothing is lost", () => {
    expect(salvaged(file(), "x")).toEqual({ project: whole(), lost: [] });
  });

  it("leaves out a clip that does not fit, and the facing that showed it", () => {
    const damaged = file();
    damaged.clips[0].steps[0].ms = "soon";
    const { project, lost } = salvaged(damaged, "x") ?? {};
    expect(lost).toEqual(['clip "walk"', 'the facing e of action "go"']);
    expect(project?.clips.map(({ name }) => name)).toEqual(["run"]);
    expect(project?.sources).toEqual(whole().sources);
  });

  it("leaves out single frames, kinds of marks with their marks, and unknown fields; second ones of a name get another", () => {
    const damaged = file();
    damaged.sources[0].frames[3].rect = null;
    damaged.marks[0].letter = 7;
    damaged.clips.push(damaged.clips[1]);
    damaged.wobble = 1;
    const { project, lost } = salvaged(damaged, "x") ?? {};
    expect(lost).toEqual([
      '1 frame of "porter"',
      'kind of marks "body"',
      "its wobble",
      'the name of a second clip "run", which is "run-2" now',
      'the body on frames of "porter"',
    ]);
    expect(project?.sources[0]?.frames).toHaveLength(11);
  });

  it("leaves out what was decided about a frame before the frame, and what was decided about a source before the source", () => {
    const damaged = file();
    const [source] = damaged.sources;
    source.frames[0].marks.boxes.body = { x: 1 };
    source.frames[1].origin = "left";
    source.frames[2].mood = "good";
    source.scale = -1;
    source.cut = { by: "magic" };
    source.pictures[0].file = "../../etc";
    const { project, lost } = salvaged(damaged, "x") ?? {};
    expect(lost).toEqual([
      'the file names of source "porter"',
      'the scale of source "porter"',
      'the cut of source "porter"',
      'the body on frames of "porter"',
      'the origin of frames of "porter"',
      'an unknown "mood" in source "porter"',
    ]);
    expect(project?.sources[0]?.frames.map(({ key, rect }) => ({ key, rect }))).toEqual(
      whole().sources[0]?.frames.map(({ key, rect }) => ({ key, rect })),
    );
    expect(project?.clips).toEqual(whole().clips);
  });

  it("leaves out frames beyond their picture, of a key that is taken, and layers that do not fit", () => {
    const damaged = file();
    const [source] = damaged.sources;
    source.frames[4].rect.x = 99_999;
    source.frames[5].key = source.frames[3].key;
    source.layers = [{ name: "light", blend: "add", pictures: [{ ...source.pictures[0], width: 1 }] }];
    const { project, lost } = salvaged(damaged, "x") ?? {};
    expect(lost).toEqual(['1 layer of "porter"', '2 frames of "porter"', 'the layers of source "porter"']);
    expect(project?.sources[0]?.frames).toHaveLength(10);
    expect(project?.sources[0]?.layers).toBeUndefined();
  });

  it("gives a source without an id the one that its clips show", () => {
    const damaged = file();
    damaged.sources[0].id = null;
    const { project, lost } = salvaged(damaged, "x") ?? {};
    expect(lost).toEqual(['the id of source "porter"']);
    expect(project).toEqual(whole());
  });

  it("keeps the steps of a clip that does not say how it plays", () => {
    const damaged = file();
    damaged.clips[0].playback = "sideways";
    damaged.clips[0].loopFrom = 7;
    const { project, lost } = salvaged(damaged, "x") ?? {};
    expect(lost).toEqual(['the playback of clip "walk"', 'the loopFrom of clip "walk"']);
    expect(project).toEqual(whole());
  });

  it("gives up if no source can be read, and for a file of a newer version", () => {
    expect(salvaged({ ...file(), sources: "gone" }, "x")).toBeNull();
    expect(salvaged({ ...file(), version: 9999 }, "x")).toBeNull();
    expect(salvaged("text", "x")).toBeNull();
  });

  it("of any damage returns what opens, and always does if the sources are whole", () => {
    const values = [null, -1, 0.5, "", "__proto__", [], {}, true];
    const fields = ["name", "sources", "clips", "actions", "marks", "deliveries", "readings"];
    fc.assert(
      fc.property(fc.constantFrom(...fields), fc.array(fc.nat(), { maxLength: 9 }), fc.constantFrom(...values), (field, path, value) => {
        const damaged = file();
        if (path.length === 0) damaged[field] = value;
        let place = damaged[field];
        for (const step of path) {
          if (typeof place !== "object" || place === null) break;
          const names = Object.keys(place);
          const name = names[step % Math.max(1, names.length)];
          if (name === undefined) break;
          if (typeof place[name] === "object" && place[name] !== null) place = place[name];
          else {
            place[name] = value;
            break;
          }
        }
        const found = salvaged(damaged, "x");
        if (field !== "sources") expect(found?.project.sources).toHaveLength(1);
        if (found) checkDocument(found.project, "salvaged");
      }),
      { numRuns: 300 },
    );
  });
});
