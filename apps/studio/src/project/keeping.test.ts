import "fake-indexeddb/auto";
import { addClip, cutSource, duplicateClip, renameProject } from "@caravan/core/edit";
import { type ClipName, emptyProject, type FrameRef, type Project, projectToFile, type SourceId } from "@caravan/core/model";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { porterCoverage, porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { isSaved, saveNow } from "./autosave";
import { begin } from "./begun";
import { writeJournal } from "./journal";
import { useLeaving } from "./leaving";
import { apply, edit, undo, useOpenProject } from "./open-project";
import { forgetWaiting, pictureBlob, picturesWaiting, storePicture } from "./picture-files";
import { createProject, createWithArt, openProject, renameStored } from "./projects";
import { useReports } from "./reports";
import { storage } from "./storage";
import { readStored } from "./stored-project";

// Reading pictures takes a browser's workers; these tests are of what is stored.
vi.mock("../workers/client", () => ({ run: () => Promise.reject(new Error("No workers here.")) }));

const refs = ["s1/c0r0", "s1/c1r0"] as FrameRef[];
const walk = "walk" as ClipName;
const open = () => useOpenProject.getState();

/** What the page writes beside storage. */
const beside = new Map<string, string>();

beforeEach(async () => {
  beside.clear();
  vi.stubGlobal("navigator", {});
  vi.stubGlobal("localStorage", {
    getItem: (key: string) => beside.get(key) ?? null,
    setItem: (key: string, text: string) => void beside.set(key, text),
    removeItem: (key: string) => void beside.delete(key),
  });
  useOpenProject.setState({ id: null, project: emptyProject("…"), saving: { kind: "saved", at: 0 }, access: "owner" });
  useLeaving.setState({ question: null });
  forgetWaiting();
  await Promise.all(storage.tables.map((table) => table.clear()));
});

async function opened(project: Project = porterProject()): Promise<string> {
  const id = await createProject(project);
  await openProject(id);
  return id;
}

/** Lets every write fail for want of room while `work` goes on. */
async function withoutRoom(work: () => Promise<void>): Promise<void> {
  const full = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
    throw new DOMException("No room.", "QuotaExceededError");
  });
  try {
    await work();
  } finally {
    full.mockRestore();
  }
}

describe("an edit that would leave a document that cannot be opened", () => {
  it("is not made, nothing changes, and a report can be saved", async () => {
    await opened();
    const before = open();
    const error = apply(
      (project) => ({
        ...project,
        clips: [{ name: "\ud83d" as ClipName, steps: [], playback: "loop", times: 0, loopFrom: 0, after: "hold", doubleEnds: false }],
      }),
      () => "spoil it",
    );
    expect(error?.code).toBe("internal");
    expect(open()).toBe(before);
    expect(useReports.getState().report?.what).toBe("spoil it");
  });
});

describe("a project that there is no room for", () => {
  it("is not made, and its art is forgotten, but not what the open one needs", async () => {
    await opened();
    const own = open().project.sources[0]?.pictures[0]?.sha256 as string;
    const other = "f".repeat(64);
    const [source] = porterProject().sources as [Project["sources"][number]];
    const copy = {
      ...porterProject(),
      sources: [{ ...source, pictures: [...source.pictures, { ...source.pictures[0], file: "art/b.png", sha256: other }] }],
    } as Project;
    await withoutRoom(async () => {
      for (const sha256 of [own, other]) await storePicture(sha256, new Blob([sha256]));
      expect(picturesWaiting()).toBe(2);
      vi.spyOn(IDBObjectStore.prototype, "add").mockImplementationOnce(() => {
        throw new DOMException("No room.", "QuotaExceededError");
      });
      await expect(createWithArt(copy)).rejects.toThrow();
    });
    expect(await pictureBlob(own)).toBeDefined();
    expect(await pictureBlob(other)).toBeUndefined();
    expect(picturesWaiting()).toBe(1);
  });
});

describe("a project whose document does not open", () => {
  const spoil = async (id: string, change: (text: string) => string) => {
    const row = await storage.documents.get([id, "clips"]);
    if (row) await storage.documents.put({ ...row, text: change(row.text) });
  };

  it("goes back through its history to the last state that opens, and keeps the original aside", async () => {
    const id = await opened();
    edit(addClip, refs, "walk");
    edit(duplicateClip, walk);
    await saveNow();
    // The second clip alone is wrong, so the first change still opens.
    await spoil(id, (text) => {
      const at = text.lastIndexOf('"playback":"loop"');
      return text.slice(0, at) + text.slice(at).replace("loop", "wobble");
    });
    const read = await readStored(id);
    expect(read.left?.taken).toEqual(["duplicate walk"]);
    expect(read.project.clips.map(({ name }) => name)).toEqual(["walk"]);
    expect(read.history.entries.map(({ label }) => label)).toEqual(["make walk"]);
    expect(JSON.stringify(await storage.settings.toArray())).toContain("wobble");
  });

  it("leaves out damaged items if more than the last change would be lost, and opens the rest", async () => {
    const id = await opened();
    expect(edit(addClip, refs, "walk")).toBeNull();
    expect(edit(duplicateClip, "walk" as ClipName)).toBeNull();
    expect(edit(renameProject, "Camp")).toBeNull();
    await saveNow();
    await spoil(id, (text) => text.replace('"frame":"s1/', '"frame":"nowhere/'));
    const { project, history, left } = await readStored(id);
    expect(left?.lost).toEqual(['clip "walk"']);
    expect(project.clips).toHaveLength(1);
    expect(project.name).toBe("Camp");
    expect(history.entries).toEqual([]);
    // What can no longer be read as JSON at all.
    await spoil(id, (text) => text.slice(0, -9));
    const again = await readStored(id);
    expect(again.left?.lost).toContain("what follows a damaged place in its clips");
    expect(again.project.sources).toHaveLength(1);
    await spoil(id, () => "wobble");
    const without = await readStored(id);
    expect(without.left?.lost).toEqual(["its clips"]);
    expect(without.project).toMatchObject({ clips: [], name: "Camp" });
  });

  it("says why if nothing opens, and keeps the current project open", async () => {
    const id = await opened();
    const other = await createProject(porterProject());
    await storage.documents.put({ project: other, part: "sources", text: '{"cut off' });
    await expect(openProject(other)).rejects.toThrow(/cannot be read/);
    expect(open().id).toBe(id);
    expect(edit(addClip, refs, "walk")).toBeNull();
    await saveNow();
    expect((await readStored(id)).project.clips).toHaveLength(1);
  });
});

describe("a tab that lost its project to another", () => {
  it("never writes it, and keeps the changes to be saved to a file", async () => {
    const id = await opened();
    edit(addClip, refs, "walk");
    await storage.projects.update(id, { owner: "another tab" });
    await saveNow();
    expect(open()).toMatchObject({ access: "reader", saving: { kind: "failed" } });
    expect(open().project.clips).toHaveLength(1);
    expect((await readStored(id)).project.clips).toHaveLength(0);
  });
});

describe("leaving a project that cannot be saved", () => {
  it("asks, stays on stay, and leaves on discard; another project is never confused with it", async () => {
    const first = await opened();
    const second = await createProject({ ...porterProject(), name: "second" });
    await withoutRoom(async () => {
      edit(addClip, refs, "walk");
      await saveNow();
      const staying = openProject(second);
      await vi.waitFor(() => expect(useLeaving.getState().question).not.toBeNull());
      useLeaving.getState().question?.answer("stay");
      expect(await staying).toBe(false);
      expect([open().id, open().project.clips.length]).toEqual([first, 1]);
    });
    await withoutRoom(async () => {
      const going = openProject(second);
      await vi.waitFor(() => expect(useLeaving.getState().question).not.toBeNull());
      useLeaving.getState().question?.answer("discard");
      expect(await going).toBe(true);
    });
    expect(open().project.name).toBe("second");
  });

  it("counts pictures that found no room as unsaved", async () => {
    await opened();
    await withoutRoom(async () => {
      await storePicture("a".repeat(64), new Blob(["art"]));
    });
    expect([picturesWaiting(), isSaved(), open().saving.kind]).toEqual([1, false, "failed"]);
    await saveNow();
    expect([picturesWaiting(), isSaved()]).toEqual([0, true]);
  });
});

describe("unsaved changes when the page goes away", () => {
  it("are restored when the project is opened again, undo included", async () => {
    const id = await opened();
    edit(addClip, refs, "walk");
    await saveNow();
    const stored = open();
    edit(duplicateClip, walk);
    const revision = (await storage.projects.get(id))?.revision ?? 0;
    writeJournal(id, { project: stored.project, history: stored.history, revision }, open().project, open().history);
    const wanted = open().project;
    useOpenProject.setState({ id: null, saving: { kind: "saved", at: 0 } });
    await openProject(id);
    expect(open().project).toEqual(wanted);
    expect(undo()).toBe("duplicate walk");
    await saveNow();
    expect(beside.size).toBe(0);
    expect((await readStored(id)).project.clips).toHaveLength(1);
  });

  it("means nothing after another save", async () => {
    const id = await opened();
    edit(addClip, refs, "walk");
    const { project, history } = open();
    writeJournal(id, { project: porterProject(), history: { first: 0, entries: [], cursor: 0 }, revision: 99 }, project, history);
    await saveNow();
    beside.set(`caravan unsaved ${id}`, JSON.stringify({ revision: 99, changes: [], first: 0, from: 0, entries: [], cursor: 0 }));
    useOpenProject.setState({ id: null, saving: { kind: "saved", at: 0 } });
    await openProject(id);
    expect(open().project.clips).toHaveLength(1);
  });
});

describe("work that ends later than it began", () => {
  const cut = { by: "cell", cell: { w: 8, h: 10 }, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: false } as const;

  it("is refused in words and ended when another project is open by then", async () => {
    await opened();
    const work = begin();
    await opened({ ...porterProject(), name: "second" });
    expect(work.signal.aborted).toBe(true);
    expect(work.edit(cutSource, "s1" as SourceId, { ...cut, cell: { w: 4, h: 10 } }, porterCoverage())?.code).toBe("other-project");
    expect(() => work.still()).toThrow(/Another project was opened/);
    expect(open().project.sources[0]?.frames).toHaveLength(12);
  });

  it("is refused if the source's art changed meanwhile", async () => {
    await opened();
    const work = begin();
    const [source] = open().project.sources;
    if (!source) throw new Error("The fixture has a source.");
    apply(
      (project) => ({
        ...project,
        sources: [{ ...source, pictures: source.pictures.map((each) => ({ ...each, sha256: "b".repeat(64) })) }],
      }),
      () => "change its art",
    );
    expect(() => work.stillHas(source)).toThrow(/art changed/);
  });

  it("is refused if frames no longer show what was measured, as after another cut", async () => {
    await opened();
    const [source] = open().project.sources;
    if (!source) throw new Error("The fixture has a source.");
    const measured = source.frames.map((frame) => ({ source, frame }));
    const work = begin();
    edit(renameProject, "other words");
    work.stillShows(measured);
    edit(cutSource, source.id, { ...cut, margin: { x: 2, y: 0 } }, porterCoverage());
    expect(() => work.stillShows(measured)).toThrow(/art changed/);
  });
});

describe("projects in storage", () => {
  it("are renamed only by their owner, and checked like any name", async () => {
    const id = await createProject(porterProject());
    await expect(renameStored(id, "  ")).rejects.toThrow(/1 to 200 characters/);
    await renameStored(id, "Tea road");
    expect((await readStored(id)).project.name).toBe("Tea road");
  });

  it("are written whole again if their rows are missing", async () => {
    const id = await opened();
    edit(renameProject, "kept");
    await saveNow();
    await Promise.all([storage.projects.clear(), storage.documents.clear(), storage.history.clear()]);
    await storage.pictures.put({ sha256: "a".repeat(64), blob: new Blob(["art"]) });
    edit(addClip, refs, "walk");
    await saveNow();
    const read = await readStored(id);
    expect(projectToFile(read.project)).toEqual(projectToFile(open().project));
    expect(read.history.entries.map(({ label }) => label)).toEqual(["rename the project to kept", "make walk"]);
    expect(isSaved()).toBe(true);
  });
});
