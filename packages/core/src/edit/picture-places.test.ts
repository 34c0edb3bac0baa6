import { describe, expect, it } from "vitest";
import { bundleFiles } from "../bundle";
import { sha256Hex, utf8 } from "../codec";
import { emptyProject } from "../model";
import { addSources } from "./add-sources";
import { followFiles, layPictures } from "./picture-places";

const bytes = ["walkers", "camel"].map(utf8);
const [walkers, camel] = bytes.map(sha256Hex) as [string, string];
const size = { width: 8, height: 8 };
const project = addSources(emptyProject("camp"), [
  { fileName: "walkers.png", sha256: walkers, ...size },
  { fileName: "camel.png", sha256: camel, ...size },
]);
const files = (places: Record<string, string>) =>
  layPictures(project, new Map(Object.entries(places))).sources.map(({ pictures }) => pictures[0]?.file);

describe("layPictures", () => {
  it("uses a folder's paths for these pictures, and keeps the others", () =>
    expect(files({ [walkers]: "assets/people/walkers.png" })).toEqual(["assets/people/walkers.png", "art/camel.png"]));

  it("changes nothing if nothing differs, nor for an invalid path", () => {
    expect(layPictures(project, new Map([[walkers, "art/walkers.png"]]))).toBe(project);
    expect(layPictures(project, new Map([[walkers, "../walkers.png"]]))).toBe(project);
    expect(layPictures(project, new Map())).toBe(project);
  });

  it("never leaves two pictures on one path", () => {
    const laid = layPictures(project, new Map([[walkers, "art/camel.png"]]));
    expect(new Set(laid.sources.map(({ pictures }) => pictures[0]?.file)).size).toBe(2);
    const pictures = new Map(bytes.map((each) => [sha256Hex(each), each]));
    expect(bundleFiles({ project: laid, pictures })).toHaveLength(3);
  });
});

describe("followFiles", () => {
  it("gives renamed files' pictures their new paths, and leaves everything else", () => {
    const renamed = followFiles(project, new Map([["art/camel.png", "art/dromedary.png"]]));
    expect(renamed.sources.map(({ name, pictures }) => [name, pictures[0]?.file])).toEqual([
      ["walkers", "art/walkers.png"],
      ["camel", "art/dromedary.png"],
    ]);
    expect(followFiles.label(project, new Map([["art/camel.png", "art/dromedary.png"]]))).toBe(
      "follow art/camel.png, which is art/dromedary.png now",
    );
    expect(followFiles(project, new Map([["art/gone.png", "art/x.png"]]))).toBe(project);
    expect(followFiles(project, new Map([["art/camel.png", "con/../x"]]))).toBe(project);
  });
});
