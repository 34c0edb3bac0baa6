import "fake-indexeddb/auto";
import { setPixelsPerUnit } from "@caravan/core/edit";
import { projectFromFile } from "@caravan/core/model";
import { describe, expect, it } from "vitest";
import { porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { readDocument, writeDocument } from "./stored-document";

describe("a document in storage", () => {
  it("loses a field that the project no longer has, even if nothing else has changed", async () => {
    const plain = porterProject();
    const withUnit = setPixelsPerUnit(plain, 16);
    await writeDocument("p", withUnit, null);
    expect(projectFromFile(await readDocument("p"), "p").pixelsPerUnit).toBe(16);
    await writeDocument("p", setPixelsPerUnit(withUnit, null), withUnit);
    expect(projectFromFile(await readDocument("p"), "p")).toEqual(plain);
  });
});
