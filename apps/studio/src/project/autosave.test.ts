import "fake-indexeddb/auto";
import { addClip, duplicateClip } from "@caravan/core/edit";
import type { ClipName, FrameRef } from "@caravan/core/model";
import { projectFromFile } from "@caravan/core/model";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { markStored, saveNow } from "./autosave";
import { NO_HISTORY } from "./history";
import { edit, redo, undo, useOpenProject } from "./open-project";
import { entriesOf, storage } from "./storage";
import { readDocument } from "./stored-document";

const id = "p1";
const refs = ["s1/c0r0", "s1/c1r0"] as FrameRef[];

beforeEach(async () => {
  await Promise.all(storage.tables.map((table) => table.clear()));
  markStored(id, NO_HISTORY);
  useOpenProject.setState({
    id,
    project: porterProject(),
    history: NO_HISTORY,
    access: "owner",
    demo: true,
    saving: { kind: "saved", at: 0 },
  });
});

/** What a reload would find. */
async function stored() {
  const row = await storage.projects.get(id);
  return {
    project: row && projectFromFile(await readDocument(id), "stored"),
    cursor: row?.cursor,
    labels: (await entriesOf(id)).map((entry) => entry.label),
  };
}

describe("autosave", () => {
  it("stores document and history together, and only when something changed", async () => {
    await saveNow();
    expect((await stored()).project).toBeUndefined();
    edit(addClip, refs, "walk");
    edit(duplicateClip, "walk" as ClipName);
    await saveNow();
    expect(await stored()).toEqual({ project: useOpenProject.getState().project, cursor: 2, labels: ["make walk", "duplicate walk"] });
    expect(useOpenProject.getState().saving.kind).toBe("saved");
  });

  it("removes stored entries that could not be read, so that they never follow newer ones", async () => {
    edit(addClip, refs, "walk");
    await saveNow();
    const [first] = await entriesOf(id);
    if (!first) throw new Error("Nothing was stored.");
    // After a gap: unreachable when it was opened.
    await storage.history.put({ ...first, index: 2 });
    markStored(id, useOpenProject.getState().history);
    edit(duplicateClip, "walk" as ClipName);
    await saveNow();
    expect((await entriesOf(id)).map(({ index, label }) => [index, label])).toEqual([
      [0, "make walk"],
      [1, "duplicate walk"],
    ]);
  });

  it("recognises full storage, leaves the stored state as it was, and saves everything once there is room", async () => {
    edit(addClip, refs, "walk");
    await saveNow();
    const full = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("No room.", "QuotaExceededError");
    });
    edit(duplicateClip, "walk" as ClipName);
    await saveNow();
    full.mockRestore();
    expect(useOpenProject.getState().saving).toMatchObject({ kind: "failed", full: true });
    expect((await stored()).labels).toEqual(["make walk"]);
    await saveNow();
    expect(await stored()).toEqual({ project: useOpenProject.getState().project, cursor: 2, labels: ["make walk", "duplicate walk"] });
  });

  it("says so when storage does not answer, and that all is saved once it does", async () => {
    edit(addClip, refs, "walk");
    vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout", "setInterval", "clearInterval"] });
    let answer = () => {};
    const asked = new Promise<void>((then) => {
      answer = then;
    });
    const { transaction } = storage;
    const slow = vi.spyOn(storage, "transaction").mockImplementation((async (...args: unknown[]) => {
      await asked;
      return Reflect.apply(transaction, storage, args);
    }) as never);
    const saving = saveNow();
    await vi.advanceTimersByTimeAsync(19_000);
    expect(useOpenProject.getState().saving.kind).toBe("pending");
    await vi.advanceTimersByTimeAsync(2000);
    expect(useOpenProject.getState().saving).toMatchObject({
      kind: "failed",
      reason: "This browser's storage has not answered for 20 seconds.",
    });
    vi.useRealTimers();
    answer();
    await saving;
    slow.mockRestore();
    expect(useOpenProject.getState().saving.kind).toBe("saved");
    expect((await stored()).labels).toEqual(["make walk"]);
  });

  it("stores the undo position, and replaces undone entries by new ones", async () => {
    edit(addClip, refs, "walk");
    edit(duplicateClip, "walk" as ClipName);
    await saveNow();
    expect(undo()).toBe("duplicate walk");
    await saveNow();
    expect(await stored()).toMatchObject({ cursor: 1, labels: ["make walk", "duplicate walk"] });
    edit(addClip, refs, "idle");
    await saveNow();
    expect(await stored()).toMatchObject({ cursor: 2, labels: ["make walk", "make idle"] });
    expect(redo()).toBeNull();
  });

  it("keeps the work and says why when there is no room, and saves it all later", async () => {
    edit(addClip, refs, "walk");
    const full = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("No room.", "QuotaExceededError");
    });
    await saveNow();
    expect(useOpenProject.getState().saving).toMatchObject({ kind: "failed", full: true });
    expect((await stored()).project).toBeUndefined();
    full.mockRestore();
    edit(duplicateClip, "walk" as ClipName);
    await saveNow();
    expect(await stored()).toMatchObject({ cursor: 2, labels: ["make walk", "duplicate walk"] });
  });

  it("writes nothing from a tab that only looks on, and refuses its edits", async () => {
    useOpenProject.setState({ access: "reader" });
    expect(edit(addClip, refs, "walk")?.code).toBe("read-only");
    await saveNow();
    expect((await stored()).project).toBeUndefined();
  });
});
