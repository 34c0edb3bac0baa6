import "fake-indexeddb/auto";
import { addSources } from "@caravan/core/edit";
import { emptyProject } from "@caravan/core/model";
import { beforeEach, describe, expect, it } from "vitest";
import { storage } from "./storage";
import { writeDocument } from "./stored-document";
import { deleteForGood, sweepOld } from "./sweep";

const hash = (letter: string) => letter.repeat(64);
const DAY = 24 * 3600 * 1000;

async function store(id: string, pictures: readonly string[], removedAt?: number): Promise<void> {
  const project = addSources(
    emptyProject(id),
    pictures.map((letter) => ({ fileName: `${letter}.png`, sha256: hash(letter), width: 1, height: 1 })),
  );
  await storage.projects.put({
    id,
    name: id,
    sources: 0,
    clips: 0,
    cursor: 0,
    createdAt: 0,
    savedAt: 0,
    ...(removedAt === undefined ? {} : { removedAt }),
  });
  await writeDocument(id, project, null);
  for (const letter of pictures) await storage.pictures.put({ sha256: hash(letter), blob: new Blob([letter]) });
}
const left = async () => ({
  projects: await storage.projects.orderBy("id").primaryKeys(),
  pictures: (await storage.pictures.orderBy("sha256").primaryKeys()).map((sha256) => sha256[0]),
  history: (await storage.history.toArray()).map((entry) => entry.project),
});

describe("sweeping", () => {
  beforeEach(async () => void (await Promise.all(storage.tables.map((table) => table.clear()))));

  it("deletes a removed project with the pictures that nothing else uses, undo included", async () => {
    await store("old", ["a", "b", "c"], 0);
    await store("kept", ["b"]);
    await storage.history.bulkPut([
      { project: "old", index: 0, label: "x", changes: "{}" },
      {
        project: "kept",
        index: 0,
        label: "remove c",
        changes: JSON.stringify({ back: [{ at: ["sources"], set: [{ sha256: hash("c") }] }] }),
      },
    ]);
    await deleteForGood("old");
    expect(await left()).toEqual({ projects: ["kept"], pictures: ["b", "c"], history: ["kept"] });
  });

  it("never deletes a project that is not removed", async () => {
    await store("kept", ["a"]);
    await deleteForGood("kept");
    expect(await left()).toMatchObject({ projects: ["kept"], pictures: ["a"] });
  });

  it("automatically deletes only projects removed more than 30 days ago, a week after it found that", async () => {
    await store("old", ["a"], 0);
    await store("recent", ["b"], 12 * DAY);
    await store("kept", ["c"]);
    await sweepOld(31 * DAY);
    await sweepOld(37 * DAY);
    expect(await left()).toMatchObject({ projects: ["kept", "old", "recent"], pictures: ["a", "b", "c"] });
    await sweepOld(39 * DAY);
    expect(await left()).toMatchObject({ projects: ["kept", "recent"], pictures: ["b", "c"] });
  });

  it("deletes nothing at once because a clock was wrong, or is put right", async () => {
    await store("removed", ["a"], 100 * DAY);
    await sweepOld(9000 * DAY);
    await sweepOld(101 * DAY);
    expect((await storage.projects.get("removed"))?.oldSince).toBeUndefined();
    // Found old while the clock was ahead, and again when it was right: the week begins anew.
    await sweepOld(9000 * DAY);
    await sweepOld(140 * DAY);
    await sweepOld(141 * DAY);
    expect(await left()).toMatchObject({ projects: ["removed"], pictures: ["a"] });
    await sweepOld(148 * DAY);
    expect(await left()).toMatchObject({ projects: [], pictures: [] });
  });
});
