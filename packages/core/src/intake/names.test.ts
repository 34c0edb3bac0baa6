import { describe, expect, it } from "vitest";
import { isPassedBy } from "./names";

describe("what is passed by in folders", () => {
  it("is hidden, left by a system, or an installed package's", () => {
    for (const path of [".git", "game/.git/objects/ab/cdef", "art/.DS_Store", "__MACOSX/art/._walk.png", "art/Thumbs.db", "desktop.ini"])
      expect(isPassedBy(path), path).toBe(true);
    for (const path of ["node_modules", "game/node_modules/pack/logo.png"]) expect(isPassedBy(path), path).toBe(true);
  });

  it("is nothing that people call art like it", () => {
    for (const path of [
      "walk.png",
      "art/v1.2/walk.png",
      "art/thumbs.db.png",
      "my_node_modules/walk.png",
      "macosx/walk.png",
      "a/desktop.ini.json",
    ])
      expect(isPassedBy(path), path).toBe(false);
  });
});
