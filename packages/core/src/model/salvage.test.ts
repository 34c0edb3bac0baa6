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

  it("leaves out single frames, kinds of marks with their marks, duplicate names, and unknown fields", () => {
    const damaged = file();
    damaged.sources[0].frames[3].rect = null;
    damaged.marks[0].letter = 7;
    damaged.clips.push(damaged.clips[1]);
    damaged.wobble = 1;
    const { project, lost } = salvaged(damaged, "x") ?? {};
    expect(lost).toEqual([
      "its wobble",
      '1 frame of "porter"',
      'kind of marks "body"',
      'a second clip "run"',
      'the body on frames of "porter"',
    ]);
    expect(project?.sources[0]?.frames).toHaveLength(11);
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
