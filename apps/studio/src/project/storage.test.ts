import "fake-indexeddb/auto";
import { addClip } from "@caravan/core/edit";
import { type FrameRef, projectFromFile, projectToFile } from "@caravan/core/model";
import Dexie from "dexie";
import { describe, expect, it, vi } from "vitest";
import { porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { NO_HISTORY, remembered } from "./history";

// Reading pictures takes a browser's workers; these tests are of what is stored.
vi.mock("../workers/client", () => ({ run: () => Promise.reject(new Error("No workers here.")) }));

describe("storage of the first version", () => {
  it("is brought over with document, history and place, so that undo still reaches back", async () => {
    const before = porterProject();
    const after = addClip(before, ["s1/c0r0"] as FrameRef[], "walk");
    const [entry] = remembered(NO_HISTORY, "make walk", before, after, 0).entries;
    const old = new Dexie("caravan");
    old.version(1).stores({ projects: "id, savedAt", history: "[project+index]", pictures: "sha256", settings: "key" });
    const place = { stop: "clips", source: null, clip: "walk" };
    await old.table("projects").put({ id: "p", name: "old", document: projectToFile(after), cursor: 1, createdAt: 1, savedAt: 2, place });
    await old.table("history").put({ project: "p", index: 0, label: "make walk", forth: entry?.forth, back: entry?.back });
    old.close();

    const { storage } = await import("./storage");
    const { readDocument } = await import("./stored-document");
    const { openProject } = await import("./projects");
    const { undo, useOpenProject } = await import("./open-project");
    vi.stubGlobal("navigator", {});
    expect(projectFromFile(await readDocument("p"), "p")).toEqual(after);
    expect(await storage.projects.get("p")).toEqual({
      id: "p",
      name: "old",
      cursor: 1,
      createdAt: 1,
      savedAt: 2,
      place,
      sources: 1,
      clips: 1,
    });
    await openProject("p");
    expect(undo()).toBe("make walk");
    expect(useOpenProject.getState().project).toEqual(before);
  });
});
