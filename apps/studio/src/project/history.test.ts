import { addClip, duplicateClip, removeClip, renameClip, setClipTotal } from "@caravan/core/edit";
import type { ClipName, FrameRef, Project } from "@caravan/core/model";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { type History, MOST_ENTRIES, NO_HISTORY, redone, remembered, undone } from "./history";

const start = addClip(porterProject(), ["s1/c0r0", "s1/c1r0"] as FrameRef[], "walk");
const walk = "walk" as ClipName;

/** Each edit, on whatever clips there are. */
const EDITS: ((project: Project, k: number) => Project)[] = [
  (project, k) => addClip(project, ["s1/c2r1" as FrameRef], `clip ${k} ${project.clips.length}`),
  (project, k) => (project.clips[k % 3] ? removeClip(project, (project.clips[k % 3] as Project["clips"][number]).name) : project),
  (project, k) => (project.clips[0] ? setClipTotal(project, project.clips[0].name, 1000 + k) : project),
  (project) => (project.clips[0] ? duplicateClip(project, project.clips[0].name) : project),
  (project, k) => (project.clips[0] ? renameClip(project, project.clips[0].name, `renamed ${k} ${project.clips.length}`) : project),
];

function made(choices: readonly number[]): { projects: Project[]; history: History } {
  const projects = [start];
  let history = NO_HISTORY;
  choices.forEach((choice, k) => {
    const before = projects.at(-1) as Project;
    const after = (EDITS[choice % EDITS.length] as (typeof EDITS)[number])(before, k + choice);
    if (after === before) return;
    history = remembered(history, `edit ${k}`, before, after, k);
    projects.push(after);
  });
  return { projects, history };
}

describe("undo and redo", () => {
  it("walk through every state back to the first and forth to the last, also after being stored", () =>
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 40 }), { maxLength: 12 }), (choices) => {
        const { projects, history } = made(choices);
        let at = JSON.parse(JSON.stringify(history)) as History;
        let project = projects.at(-1) as Project;
        for (let k = projects.length - 2; k >= 0; k--) {
          const step = undone(at, project) as NonNullable<ReturnType<typeof undone>>;
          ({ project, history: at } = step);
          expect(project).toEqual(projects[k]);
        }
        expect(undone(at, project)).toBeNull();
        for (let k = 1; k < projects.length; k++) {
          const step = redone(at, project) as NonNullable<ReturnType<typeof redone>>;
          ({ project, history: at } = step);
          expect(project).toEqual(projects[k]);
        }
        expect(redone(at, project)).toBeNull();
      }),
      { numRuns: 60 },
    ));

  it("forgets undone entries after another edit", () => {
    const { projects, history } = made([0, 0, 0]);
    const back = undone(history, projects.at(-1) as Project) as NonNullable<ReturnType<typeof undone>>;
    const other = setClipTotal(back.project, walk, 5000);
    const next = remembered(back.history, "other", back.project, other, 0);
    expect(next.entries.map((entry) => entry.label)).toEqual(["edit 0", "edit 1", "other"]);
    expect(redone(next, other)).toBeNull();
  });

  it("makes one entry of a gesture, and two of a gesture after a pause", () => {
    const nudged = [1000, 2000, 3000].map((total) => setClipTotal(start, walk, total)) as [Project, Project, Project];
    let history = remembered(NO_HISTORY, "1 ms", start, nudged[0], 0, "pace");
    history = remembered(history, "2 ms", nudged[0], nudged[1], 500, "pace");
    expect(history.entries.map((entry) => entry.label)).toEqual(["2 ms"]);
    expect(undone(history, nudged[1])?.project).toEqual(start);
    expect(remembered(history, "3 ms", nudged[1], nudged[2], 5000, "pace").entries).toHaveLength(2);
    expect(remembered(history, "3 ms", nudged[1], nudged[2], 600, "another").entries).toHaveLength(2);
  });

  it("keeps the last 500 entries and their positions in storage", () => {
    let history = NO_HISTORY;
    let project = start;
    for (let k = 0; k < MOST_ENTRIES + 7; k++) {
      const next = setClipTotal(project, walk, 1000 + k);
      history = remembered(history, String(k), project, next, k);
      project = next;
    }
    expect(history).toMatchObject({ first: 7, cursor: MOST_ENTRIES });
    expect(history.entries[0]?.label).toBe("7");
  });
});
