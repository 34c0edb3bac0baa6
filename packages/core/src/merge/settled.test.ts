import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { findingsOf } from "../check";
import {
  addAction,
  addClip,
  addDelivery,
  addLayer,
  addPiecesSource,
  addSources,
  refreshSource,
  removeDelivery,
  setClipRules,
  setPetal,
  setWays,
  takeIn,
} from "../edit";
import { looseReferences } from "../edit/loose-references.fixture";
import { porterCoverage, porterProject } from "../edit/project.fixture";
import { diceFrom, edited, picture } from "../edit/random-choices.fixture";
import { EDITS_OF_ART } from "../edit/random-edits-of-art.fixture";
import { EDITS_OF_MOTION } from "../edit/random-edits-of-motion.fixture";
import { type ActionName, type ClipName, checkDocument, keptRefs, type Project, projectToFile, type Source, type SourceId } from "../model";
import { withSourceIds } from "../references";
import { mergeProjects } from "./merge";

const GO = "go" as ActionName;
const WALK = "walk" as ClipName;
const refs = keptRefs(porterProject().sources[0] as Source);
const walking = setPetal(addAction(addClip(porterProject(), refs.slice(0, 4), "walk"), "go", 8), GO, "s", { clip: WALK });
const namesOf = ({ sources }: Project) => sources.map(({ name }) => name);

describe("changes of both sides that are fine by themselves", () => {
  it("are one if both have made the same: a source put together from pieces is there once", () => {
    const both = addPiecesSource(walking, "signs", { w: 16, h: 16 });
    expect(mergeProjects(walking, both, both)).toEqual({ project: both, conflicts: [] });
  });

  it("keep two sources of one name with other art, theirs under another name, and say so", () => {
    const art = (sha: string) => [{ fileName: "props.png", sha256: sha.repeat(64), width: 32, height: 30 }];
    const { project, conflicts } = mergeProjects(walking, addSources(walking, art("b")), addSources(walking, art("c")));
    expect(namesOf(project)).toEqual(["porter", "props", "props-2"]);
    expect(project.sources.map(({ pictures }) => pictures[0]?.sha256[0])).toEqual(["a", "b", "c"]);
    expect(conflicts).toEqual([
      { where: "sources, props", message: "Both sides have a source of this name; theirs is called props-2 now." },
    ]);
    checkDocument(project, "merged");
  });

  it("keep our action if its facings do not fit theirs, and everything else of theirs", () => {
    const ours = setPetal(walking, GO, "ne", { clip: WALK });
    const theirs = setClipRules(setWays(walking, GO, 2), WALK, { playback: "once" });
    const { project, conflicts } = mergeProjects(walking, ours, theirs);
    expect(project.actions).toEqual(ours.actions);
    expect(project.clips[0]?.playback).toBe("once");
    expect(conflicts.map(({ where }) => where)).toContain("actions, go");
  });

  it("keep one of our deliveries if each side removed another", () => {
    const two = addDelivery(walking, "web", null);
    const { project, conflicts } = mergeProjects(two, removeDelivery(two, 0), removeDelivery(two, 1));
    expect(project.deliveries.map(({ name }) => name)).toEqual(["web"]);
    expect(conflicts.map(({ where }) => where)).toEqual(["deliveries, web"]);
  });

  it("keep our source if its layers do not fit their art, and everything else of theirs", () => {
    const stills = [1, 2].map((k) => ({ sha256: String(k).repeat(64), width: 32, height: 30 }));
    const series = takeIn(walking, [{ name: "fire", pictures: stills, coverages: [porterCoverage(), porterCoverage()] }]);
    const { id } = series.sources[1] as Source;
    const glow = stills.map(({ width, height }) => ({ sha256: "e".repeat(64), width, height }));
    const ours = addLayer(series, id, { name: "glow", blend: "add", pictures: glow }, [porterCoverage(), porterCoverage()]);
    const more = [...stills, { sha256: "3".repeat(64), width: 32, height: 30 }];
    const theirs = setClipRules(refreshSource(series, id, more, [porterCoverage(), porterCoverage(), porterCoverage()]), WALK, {
      playback: "once",
    });
    const { project, conflicts } = mergeProjects(series, ours, theirs);
    expect(project.sources[1]).toEqual(ours.sources[1]);
    expect(project.clips[0]?.playback).toBe("once");
    expect(conflicts.map(({ where }) => where)).toContain("sources, fire");
  });
});

const EDITS = Object.values({ ...EDITS_OF_ART, ...EDITS_OF_MOTION });
const text = (project: Project) => JSON.stringify(projectToFile(project));
/** Whatever a merge without conflicts leaves open: the order of what both sides added, and which of two new sources has which id. */
const whatever = (project: Project): unknown => {
  const byName = <Each extends { readonly name: string }>(list: readonly Each[]) => list.toSorted((a, b) => (a.name < b.name ? -1 : 1));
  const become = new Map(byName(project.sources).map(({ id }, k) => [id, `s${1000 + k}` as SourceId]));
  const isNamed = (value: unknown): value is { name: string }[] =>
    Array.isArray(value) && value.every((each) => typeof each === "object" && each !== null && "name" in each);
  return JSON.parse(JSON.stringify(withSourceIds(project, become)), (_, value) => (isNamed(value) ? byName(value) : value));
};

describe("random edits of both sides", () => {
  it(
    "merge into a project that opens, and a side that changed nothing, or the same, gives the other",
    () =>
      fc.assert(
        fc.property(fc.integer(), (seed) => {
          const dice = diceFrom(seed);
          const first = addSources(porterProject(), [{ fileName: "more.png", ...picture }]);
          const base = edited(first, EDITS, dice, 80);
          const [ours, theirs] = [edited(base, EDITS, dice, 12), edited(base, EDITS, dice, 12)];
          expect(text(mergeProjects(base, ours, base).project)).toBe(text(ours));
          expect(text(mergeProjects(base, base, theirs).project)).toBe(text(theirs));
          expect(text(mergeProjects(base, ours, ours).project)).toBe(text(ours));
          const { project, conflicts } = mergeProjects(base, ours, theirs);
          checkDocument(project, "merged");
          const other = mergeProjects(base, theirs, ours);
          if (conflicts.length === 0 && other.conflicts.length === 0) {
            expect(whatever(project)).toEqual(whatever(other.project));
            // What refers to nothing does so on one of the sides already, or is a conflict.
            const known = [ours, theirs].flatMap(looseReferences).map(({ owner }) => owner);
            expect(looseReferences(project).filter(({ owner, to }) => !known.includes(owner) && !to.startsWith("frame"))).toEqual([]);
          }
          expect(findingsOf(project).filter(({ code }) => code === "check-failed")).toEqual([]);
        }),
        { numRuns: 40, seed: 20261129 },
      ),
    60_000,
  );
});
