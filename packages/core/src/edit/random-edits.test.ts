import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bundleFiles, readBundle, readProjectFile, writeBundle } from "../bundle";
import { findingsOf } from "../check";
import {
  allPictures,
  CaravanError,
  checkDocument,
  emptyProject,
  type Project,
  projectToFile,
  type SourceId,
  withDistinctPaths,
} from "../model";
import { applyChanges, type Change, differenceBetween } from "../undo";
import * as edits from ".";
import { looseReferences } from "./loose-references.fixture";
import { CELL, NO_SPACE } from "./project.fixture";
import { art, coverage, diceFrom, pick, picture, type RandomEdit, sha256 } from "./random-choices.fixture";
import { EDITS_OF_ART } from "./random-edits-of-art.fixture";
import { EDITS_OF_MOTION } from "./random-edits-of-motion.fixture";
import { CHANGES_MARKS, strayedMarks } from "./strayed-marks.fixture";

/** More runs with other seeds: `RANDOM_EDITS=500,7 npx vitest run random-edits`. */
const [RUNS = 12, SEED = 20_261_127] = (process.env.RANDOM_EDITS?.split(",") ?? []).map(Number);
const EDITS = Object.entries({ ...EDITS_OF_ART, ...EDITS_OF_MOTION });

const text = (project: Project) => JSON.stringify(projectToFile(project));

describe("hundreds of random edits", () => {
  it(
    "leave documents that open, findings without errors, marks at their pixels, and an undo that restores the first one to the byte",
    () =>
      fc.assert(
        fc.property(fc.integer(), (seed) => {
          const dice = diceFrom(seed);
          const empty = edits.addSources(emptyProject("random"), [{ fileName: "porter.png", ...picture }]);
          const first = edits.cutSource(
            empty,
            "s1" as SourceId,
            { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false },
            coverage,
          );
          let project = first;
          const undo: (readonly Change[])[] = [];
          let made = 0;
          for (let k = 0; k < 300; k++) {
            const [what, change] = pick(EDITS, dice) as [string, RandomEdit];
            let next = project;
            try {
              next = change(project, dice);
            } catch (error) {
              // Refused in words, and nothing has changed.
              if (!(error instanceof CaravanError)) throw new Error(`seed ${seed}, edit ${k}, ${what}: ${error}`, { cause: error });
            }
            if (next === project) continue;
            made++;
            try {
              checkDocument(next, "document");
              const findings = findingsOf(next);
              expect(findings.filter(({ code }) => code === "check-failed")).toEqual([]);
              const told = JSON.stringify(findings);
              expect(looseReferences(next).filter(({ owner }) => !told.includes(JSON.stringify(owner).slice(1, -1)))).toEqual([]);
              if (!CHANGES_MARKS.has(what)) expect(strayedMarks(project, next)).toEqual([]);
            } catch (error) {
              throw new Error(`seed ${seed}, edit ${k}, ${what}: ${error}`, { cause: error });
            }
            // Stored and read, as after a reload in between.
            undo.push(JSON.parse(JSON.stringify(differenceBetween(next, project))));
            expect(text(applyChanges(project, JSON.parse(JSON.stringify(differenceBetween(project, next)))) as Project)).toBe(text(next));
            project = next;
          }
          expect(made).toBeGreaterThan(60);
          const pictures = new Map(project.sources.flatMap((each) => allPictures(each).map(({ sha256: hash }) => [hash, art] as const)));
          const [written] = bundleFiles({ project, pictures });
          // New art of one of two sources that share a file leaves two contents under one path, which a file cannot have.
          const saved = withDistinctPaths(project);
          expect(readProjectFile(written?.bytes ?? art, "saved")).toEqual(saved);
          if ([...pictures.keys()].every((each) => each === sha256))
            expect(readBundle(writeBundle({ project, pictures }), "bundle").project).toEqual(saved);
          let back = project;
          for (const changes of undo.reverse()) back = applyChanges(back, changes) as Project;
          expect(text(back)).toBe(text(first));
        }),
        { numRuns: RUNS, seed: SEED },
      ),
    RUNS * 10_000,
  );
});
