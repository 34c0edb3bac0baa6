import "fake-indexeddb/auto";
import { addClip, addSources, cutSource, removeSource, renameSource } from "@caravan/core/edit";
import { emptyProject, type FrameRef, type Source, type SourceId } from "@caravan/core/model";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { CELL, NO_SPACE, PORTER, porterCoverage, porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { BY_METADATA } from "../../../../packages/core/src/edit/random-choices.fixture";
import { saveNow } from "./autosave";
import { textsOf } from "./kept-texts";
import { edit, undo, useOpenProject } from "./open-project";
import {
  createProject,
  duplicateProject,
  listProjects,
  listRemoved,
  openProject,
  projectForStart,
  rememberPlace,
  removeProject,
  renameStored,
  restoreProject,
  startProject,
} from "./projects";
import { storage } from "./storage";
import { useView } from "./view";

// Reading pictures takes a browser's workers; these tests are of what is stored.
vi.mock("../workers/client", () => ({ run: () => Promise.reject(new Error("No workers here.")) }));

const names = async () => (await listProjects()).map((row) => row.name).toSorted();

beforeEach(async () => {
  vi.stubGlobal("navigator", {});
  useOpenProject.setState({ id: null, saving: { kind: "saved", at: 0 }, access: "owner" });
  await Promise.all(storage.tables.map((table) => table.clear()));
});

describe("projects in this browser", () => {
  it("open as they were saved, at the place that was left", async () => {
    const id = await createProject(porterProject());
    await openProject(id);
    edit(addClip, ["s1/c1r0" as FrameRef], "walk");
    await saveNow();
    await rememberPlace({ stop: "clips", source: "s1", clip: "walk" });
    await openProject(await createProject(emptyProject("other")));
    expect(useView.getState().stop).toBe("sources");
    await openProject(id);
    expect(useOpenProject.getState().project.clips.map((clip) => clip.name)).toEqual(["walk"]);
    expect(useView.getState()).toMatchObject({ stop: "clips", clipName: "walk" });
    expect(undo()).toBe("make walk");
    expect(useOpenProject.getState().project).toEqual(porterProject());
  });

  it("save pending changes before another one opens", async () => {
    const first = await createProject(porterProject());
    await openProject(first);
    edit(addClip, ["s1/c0r0" as FrameRef], "walk");
    await openProject(await createProject(emptyProject("other")));
    await openProject(first);
    expect(useOpenProject.getState().project.clips).toHaveLength(1);
  });

  it("get names that are free", async () => {
    await startProject();
    await startProject();
    await duplicateProject(useOpenProject.getState().id as string);
    await duplicateProject(useOpenProject.getState().id as string);
    expect(await names()).toEqual(["New project", "New project 2", "New project 2 copy", "New project 2 copy 2"]);
  });

  it("are duplicated with the metadata that cut their sources", async () => {
    const [source] = porterProject().sources as [Source];
    const cut = { ...BY_METADATA, sha256: "a".repeat(64) };
    const id = await createProject({ ...porterProject(), sources: [{ ...source, cut }] });
    await storage.texts.put({ project: id, source: source.id, file: cut.file, sha256: cut.sha256, text: "[]" });
    await duplicateProject(id);
    // The first may be deleted for good, with all that it has.
    await storage.texts.where("[project+source]").equals([id, source.id]).delete();
    const copy = (await listProjects()).find((row) => row.id !== id);
    await openProject(copy?.id ?? "none");
    expect(await textsOf(useOpenProject.getState().project)).toEqual([[cut.sha256, "[]"]]);
  });

  it("keep metadata as their own that they found with another project", async () => {
    const [source] = porterProject().sources as [Source];
    const cut = { ...BY_METADATA, sha256: "b".repeat(64) };
    const text = { source: source.id, file: cut.file, sha256: cut.sha256, text: "[]" };
    await storage.texts.put({ ...text, project: "another" });
    await openProject(await createProject({ ...porterProject(), sources: [{ ...source, cut }] }));
    const { project } = useOpenProject.getState();
    expect(await textsOf(project)).toEqual([[cut.sha256, "[]"]]);
    await storage.texts.where("[project+source]").equals(["another", source.id]).delete();
    expect(await textsOf(project)).toEqual([[cut.sha256, "[]"]]);
  });

  it("are removed and brought back, and renamed without being opened", async () => {
    const id = await createProject(emptyProject("salt"));
    await removeProject(id);
    expect([await names(), (await listRemoved()).map((row) => row.name)]).toEqual([[], ["salt"]]);
    await restoreProject(id);
    await renameStored(id, "tea");
    expect([await names(), await listRemoved()]).toEqual([["tea"], []]);
    await openProject(id);
    expect(useOpenProject.getState().project.name).toBe("tea");
  });

  it("open the requested one, or the last, or any; none in an empty browser", async () => {
    expect(await projectForStart(null)).toBeNull();
    const a = await createProject(emptyProject("a"));
    const b = await createProject(emptyProject("b"));
    await openProject(a);
    expect(await projectForStart(null)).toBe(a);
    expect(await projectForStart(b)).toBe(b);
    await removeProject(a);
    expect(await projectForStart("gone")).toBe(b);
  });

  it("report that they are missing or unreadable", async () => {
    await expect(openProject("gone")).rejects.toThrow(/does not hold it any more/);
    const id = await createProject(porterProject());
    await storage.documents.put({ project: id, part: "rest", text: JSON.stringify({ format: "caravan-project", version: 99 }) });
    await expect(openProject(id)).rejects.toThrow(/newer Caravan \(version 99/);
  });

  it("whose document cannot be read is made again from its changes, but only if these began with nothing", async () => {
    const spoil = async (id: string) => {
      await storage.documents.put({ project: id, part: "sources", text: "wobble" });
      useOpenProject.setState({ id: null });
    };
    const begun = await createProject(emptyProject("begun"));
    await openProject(begun);
    edit(addSources, [{ fileName: "porter.png", sha256: "a".repeat(64), width: 32, height: 30 }]);
    edit(cutSource, PORTER, { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false }, porterCoverage());
    edit(addClip, ["s1/c1r0" as FrameRef], "walk");
    await saveNow();
    const { project } = useOpenProject.getState();
    await spoil(begun);
    await openProject(begun);
    expect(useOpenProject.getState().project).toEqual(project);
    expect(undo()).toBe("make walk");

    // Its list of changes leads to a clip too, but not to the sources that it came with.
    const imported = await createProject(porterProject());
    await openProject(imported);
    edit(addClip, ["s1/c1r0" as FrameRef], "walk");
    await saveNow();
    await spoil(imported);
    await expect(openProject(imported)).rejects.toThrow("It cannot be read");
  });

  it("are not made again from changes that lead elsewhere, nor from a list whose end is missing", async () => {
    const spoil = async (id: string) => {
      await storage.documents.put({ project: id, part: "sources", text: "wobble" });
      useOpenProject.setState({ id: null });
    };
    const other = [{ fileName: "other.png", sha256: "b".repeat(64), width: 32, height: 30 }];
    // Applied to nothing, these two changes leave the second source in place of the first.
    const imported = await createProject(porterProject());
    await openProject(imported);
    edit(addSources, other);
    edit(removeSource, "s2" as SourceId);
    await saveNow();
    expect(useOpenProject.getState().project.sources).toHaveLength(1);
    await spoil(imported);
    await expect(openProject(imported)).rejects.toThrow("It cannot be read");

    const begun = await createProject(emptyProject("begun"));
    await openProject(begun);
    edit(addSources, other);
    edit(renameSource, "s1" as SourceId, "last");
    await saveNow();
    await spoil(begun);
    const last = (await storage.history.where("project").equals(begun).toArray()).at(-1);
    await storage.history.put({ ...last, changes: "wobble" } as never);
    await expect(openProject(begun)).rejects.toThrow("It cannot be read");
  });

  it("open up to a damaged place in their sources", async () => {
    const [one] = porterProject().sources as [Source];
    const two = { ...one, id: "s2" as SourceId, name: "second" };
    const id = await createProject({ ...porterProject(), sources: [one, two] });
    const row = await storage.documents.get([id, "sources"]);
    await storage.documents.put({ project: id, part: "sources", text: row?.text.slice(0, -20) ?? "" });
    await openProject(id);
    expect(useOpenProject.getState().project.sources).toEqual([one, { ...two, frames: two.frames.slice(0, -1) }]);
  });

  it("open with what is readable of everything else", async () => {
    const id = await createProject(porterProject());
    const row = await storage.documents.get([id, "rest"]);
    for (const end of [-5, -20, 120]) {
      await storage.documents.put({ project: id, part: "rest", text: row?.text.slice(0, end) ?? "" });
      useOpenProject.setState({ id: null });
      await openProject(id);
      expect(useOpenProject.getState().project.sources).toEqual(porterProject().sources);
    }
  });
});
