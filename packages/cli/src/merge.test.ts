import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { writeBundle, writeProjectFile } from "@caravan/core/bundle";
import { addClip, setClipRules, setStepDurations } from "@caravan/core/edit";
import { type ClipName, emptyProject, type FrameRef, type Project, projectFromFile } from "@caravan/core/model";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { porterProject } from "../../core/src/edit/project.fixture";
import { caravanIn } from "./caravan.fixture";

const walk = "walk" as ClipName;
const base = addClip(porterProject(), ["s1/c0r0", "s1/c1r0"] as FrameRef[], "walk");
let folder: string;
let caravan: ReturnType<typeof caravanIn>;
const written = (name: string, project: Project) => writeFileSync(join(folder, name), writeProjectFile(project));
const read = (name: string) => projectFromFile(JSON.parse(readFileSync(join(folder, name), "utf8")), name);

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "caravan-merge-"));
  caravan = caravanIn(folder);
  // Called as git calls them.
  written(".merge_file_base", base);
  written(".merge_file_theirs", setStepDurations(base, walk, [1], 40_000));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe("caravan merge", () => {
  const merge = (...more: string[]) => caravan("merge", ".merge_file_base", ".merge_file_ours", ".merge_file_theirs", ...more);

  it("merges both sides' changes into ours, as git's merge driver", () => {
    written(".merge_file_ours", setClipRules(base, walk, { playback: "once" }));
    const { status, stdout, stderr } = merge("--out", ".merge_file_ours");
    expect([status, stdout, stderr]).toEqual([0, "Merged into .merge_file_ours.\n", ""]);
    const [clip] = read(".merge_file_ours").clips;
    expect([clip?.playback, clip?.steps[1]?.duration]).toEqual(["once", 40_000]);
  });

  it("exits with 1 for conflicts, lists them, and keeps ours", () => {
    written(".merge_file_ours", setStepDurations(base, walk, [1], 90_000));
    const told = merge("--out", "merged.json", "--json");
    expect([told.status, told.stderr]).toEqual([1, ""]);
    expect(told.json().conflicts).toEqual([{ where: "clips, walk, steps", message: "Both sides changed it differently; ours is kept." }]);
    expect(read("merged.json").clips[0]?.steps[1]?.duration).toBe(90_000);
  });

  it("prints the document without --out, and accepts an empty file as the common origin", () => {
    written(".merge_file_ours", base);
    writeFileSync(join(folder, "empty"), "");
    const { status, stdout } = caravan("merge", "empty", ".merge_file_ours", ".merge_file_ours");
    expect(status).toBe(0);
    expect(projectFromFile(JSON.parse(stdout), "printed")).toEqual(base);
  });

  it("refuses anything but a document, and then writes nothing", () => {
    writeFileSync(join(folder, "whole.caravan"), writeBundle({ project: emptyProject("whole"), pictures: new Map() }));
    const bundle = caravan("merge", ".merge_file_base", "whole.caravan", ".merge_file_theirs", "--out", "not-there.json");
    expect([bundle.status, bundle.stderr]).toEqual([1, expect.stringContaining("only documents are merged")]);
    writeFileSync(join(folder, "marked"), "<<<<<<< ours\n{}\n");
    const marked = caravan("merge", ".merge_file_base", "marked", ".merge_file_theirs", "--out", "not-there.json");
    expect([marked.status, marked.stderr]).toEqual([1, expect.stringContaining("marked")]);
    expect(() => read("not-there.json")).toThrow();
  });
});
