import { describe, expect, it } from "vitest";
import { addClip } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { checkDocument } from "./document-check";
import type { Project } from "./project";
import { projectFromFile, projectToFile } from "./project-file";
import type { FrameRef } from "./source";

const base = addClip(porterProject(), ["s1/c0r0" as FrameRef], "walk");
type Any = Record<string, unknown>;

/** Documents that no edit should make, each with one thing wrong somewhere. */
const WRONG: readonly (readonly [string, (project: Project) => Project])[] = [
  ["a name that cannot be", (p) => ({ ...p, name: "__proto__" })],
  [
    "a delivery's pattern that is too long",
    (p) => ({ ...p, deliveries: p.deliveries.map((d) => ({ ...d, choice: { ...d.choice, pattern: "x".repeat(201) } })) }),
  ],
  [
    "a path that leaves the folder",
    (p) => ({ ...p, sources: p.sources.map((s) => ({ ...s, pictures: s.pictures.map((each) => ({ ...each, file: "../x.png" })) })) }),
  ],
  [
    "a frame beyond its picture",
    (p) => ({
      ...p,
      sources: p.sources.map((s) => ({ ...s, frames: s.frames.map((f, k) => (k === 3 ? { ...f, rect: { ...f.rect, x: 99 } } : f)) })),
    }),
  ],
  [
    "a frame of an unknown field",
    (p) => ({
      ...p,
      sources: p.sources.map((s) => ({ ...s, frames: s.frames.map((f, k) => (k === 3 ? ({ ...f, more: 1 } as never) : f)) })),
    }),
  ],
  ["half of a character", (p) => ({ ...p, clips: p.clips.map((clip) => ({ ...clip, name: "\ud83d" as never })) })],
  [
    "a step of no time",
    (p) => ({ ...p, clips: p.clips.map((clip) => ({ ...clip, steps: clip.steps.map((step) => ({ ...step, duration: 0 })) })) }),
  ],
  ["two clips of one name", (p) => ({ ...p, clips: [...p.clips, ...p.clips] })],
  [
    "a facing of a clip that is gone",
    (p) => ({ ...p, actions: [{ name: "go" as never, ways: 1, facings: { s: { clip: "gone" as never } } }] }),
  ],
];

describe("checkDocument", () => {
  it("refuses exactly what opening refuses, each time", () => {
    for (const [what, spoil] of WRONG) {
      const project = spoil(base);
      for (let k = 0; k < 2; k++) expect(() => checkDocument(project, "x"), what).toThrow();
      expect(() => projectFromFile(JSON.parse(JSON.stringify(projectToFile(project))) as Any, "x"), what).toThrow();
    }
    checkDocument(base, "x");
  });

  it("finds a problem in a changed part that passed before", () => {
    checkDocument(base, "x");
    const [what, spoil] = WRONG[3] as (typeof WRONG)[number];
    expect(() => checkDocument(spoil(base), "x"), what).toThrow(/reaches beyond its/);
  });
});
