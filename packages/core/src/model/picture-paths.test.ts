import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { takeIn } from "../edit";
import { PicturePath } from "./picture";
import { freePicturePaths, pathKey, pathStem, takenPaths, withDistinctPaths } from "./picture-paths";
import { emptyProject, type Project } from "./project";

const hash = (k: number) => k.toString(16).padStart(64, "0");
const paths = (project: Project) => project.sources.flatMap(({ pictures }) => pictures.map(({ file }) => file));

describe("pathStem", () => {
  it("makes any text a path segment that every system accepts", () =>
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.string({ unit: "binary" }),
          fc.constantFrom("con", "AUX", "__proto__", "..", " . ", "a\u0000b", "\ud83d", "x".repeat(500), "漢".repeat(200)),
        ),
        (text) => {
          const stem = pathStem(text);
          expect(PicturePath.safeParse(`art/${stem}.png`).success, JSON.stringify(stem)).toBe(true);
          expect(new TextEncoder().encode(`${stem}.png`).length).toBeLessThanOrEqual(255);
          expect(stem).not.toMatch(/^(con|prn|aux|nul|com\d|lpt\d)$|[. ]$/i);
          expect(stem).not.toMatch(/[\ud800-\udbff](?![\udc00-\udfff])/);
        },
      ),
      { numRuns: 500 },
    ));
});

describe("paths of pictures", () => {
  it("are unique in the whole project ignoring case, for any import", () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom("run", "Run", "RUN", "run/0", "con", "__proto__", "0"), fc.constantFrom(1, 2, 101)), {
          minLength: 1,
          maxLength: 6,
        }),
        (drops) => {
          let k = 0;
          const arrivals = drops.map(([name, count]) => ({
            name,
            pictures: Array.from({ length: count }, () => ({ sha256: hash(k++), width: 8, height: 8 })),
          }));
          const all = paths(takeIn(emptyProject("x"), arrivals));
          expect(new Set(all.map(pathKey)).size).toBe(all.length);
        },
      ),
    ));

  it("of a document with duplicates become distinct, and equal paths of equal pictures stay", () => {
    const project = takeIn(emptyProject("x"), [
      { name: "a", pictures: [{ sha256: hash(1), width: 8, height: 8 }] },
      { name: "b", pictures: [{ sha256: hash(2), width: 8, height: 8 }] },
      { name: "c", pictures: [{ sha256: hash(1), width: 8, height: 8 }] },
    ]);
    const named = (...files: string[]): Project => ({
      ...project,
      sources: project.sources.map((source, k) => ({
        ...source,
        pictures: source.pictures.map((picture) => ({ ...picture, file: files[k] as string })),
      })),
    });
    expect(paths(withDistinctPaths(named("art/run.png", "art/Run.png", "art/run.png")))).toEqual([
      "art/run.png",
      "art/Run-2.png",
      "art/run.png",
    ]);
    expect(withDistinctPaths(project)).toBe(project);
  });

  it("of a series are in a folder of their own", () => {
    const { sources } = takeIn(emptyProject("x"), [{ name: "run", pictures: [{ sha256: hash(1), width: 8, height: 8 }] }]);
    expect(freePicturePaths("run", 2, takenPaths(sources))).toEqual(["art/run/0.png", "art/run/1.png"]);
    expect(freePicturePaths("RUN", 1, takenPaths(sources))).toEqual(["art/RUN-2.png"]);
  });
});
