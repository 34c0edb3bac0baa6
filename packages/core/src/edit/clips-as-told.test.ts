import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { NewFrame } from "../frame-identity";
import type { ActionName, Clip, ClipName, Project } from "../model";
import { clipNamed } from "../model";
import { addAction, mirrorMissing, renameAction, setPetal } from "./actions";
import { type ArrivedAction, withArrivedActions } from "./add-sources";
import { type ArrivedClip, noArrivedClips } from "./arrived-clips";
import { cutByMetadata } from "./by-metadata";
import { addClip, removeClip, renameClip, setClipRules, withClip } from "./clips";
import { type ClipChoices, type ClipNews, clipsToAdd, withClipsAsTold } from "./clips-as-told";
import { CELL, PORTER, porterProject } from "./project.fixture";
import { BY_METADATA as cut } from "./random-choices.fixture";
import type { ToldOfSource } from "./told-of-source";

const POSES = 12;

/** The cells of the sheet, in rows, or from the last to the first as after the sheet was packed anew. */
function frames(packedAnew = false): NewFrame[] {
  return Array.from({ length: POSES }, (_, number) => {
    const at = packedAnew ? POSES - 1 - number : number;
    const [column, row] = [at % 4, Math.floor(at / 4)];
    const rect = { x: column * CELL.w, y: row * CELL.h, ...CELL };
    return { key: `m${number}`, column, row, number, rect, empty: false, name: `pose ${number}` };
  });
}

type Steps = readonly (readonly [frame: number, ms: number])[];

function clip(name: string, steps: Steps, rules: Partial<ArrivedClip> = {}): ArrivedClip {
  return {
    name,
    file: "porter.json",
    playback: "loop",
    times: 0,
    steps: steps.map(([frame, ms]) => ({ frame, duration: ms * 1000 })),
    ...rules,
  };
}

const told = (clips: readonly ArrivedClip[], packedAnew = false): ToldOfSource => ({ frames: frames(packedAnew), clips });

const WALK: Steps = [
  [0, 100],
  [1, 100],
  [2, 100],
  [3, 100],
];

const NEW: ClipChoices = { add: "new", removeGone: false };

interface Followed {
  readonly project: Project;
  readonly news: ClipNews;
}

/** The project after a file that said one thing says another. */
function followed(before: Project, was: ToldOfSource | null, now: ToldOfSource, choices = NEW): Followed {
  const after = cutByMetadata(before, PORTER, cut, now.frames, was?.frames ?? null);
  return withClipsAsTold(before, after, PORTER, now, was, choices);
}

/** The sheet with everything that the file says, as after an import. */
function imported(now: ToldOfSource): Project {
  return followed(porterProject(), null, now).project;
}

/** What a clip shows, in the file's words. */
function shown({ sources, clips }: Project, name: string): Steps {
  const all = sources[0]?.frames ?? [];
  return clipNamed({ clips }, name as ClipName).steps.map(({ frame, duration }) => {
    const key = frame.slice(frame.indexOf("/") + 1);
    return [Number(all.find((each) => each.key === key)?.name?.slice(5)), duration / 1000];
  });
}

const named = (project: Project) => project.clips.map(({ name }) => name);
const of = (project: Project, name: string): Clip => clipNamed(project, name as ClipName);

describe("the clips of a metadata file", () => {
  it("come with it to a sheet that is there already", () => {
    const { project, news } = followed(
      porterProject(),
      null,
      told([clip("walk", WALK), clip("wave", [[5, 80]], { playback: "once", times: 3 })]),
    );
    expect(news).toEqual({ added: ["walk", "wave"], changed: [], removed: [], kept: [], unlisted: [] });
    expect(shown(project, "walk")).toEqual(WALK);
    expect(of(project, "wave")).toMatchObject({ playback: "once", times: 0 });
  });

  it("follow its new times and steps, also where the sheet was packed anew", () => {
    const was = told([clip("walk", WALK), clip("wave", [[5, 80]])]);
    const now = told([clip("walk", [...WALK, [4, 250]]), clip("wave", [[5, 120]], { playback: "pingpong" })], true);
    const { project, news } = followed(imported(was), was, now);
    expect(news).toMatchObject({ added: [], changed: ["walk", "wave"], kept: [] });
    expect(shown(project, "walk")).toEqual([...WALK, [4, 250]]);
    expect(shown(project, "wave")).toEqual([[5, 120]]);
    expect(of(project, "wave").playback).toBe("pingpong");
  });

  it("keep what a person changed, next to what the file changed elsewhere in them", () => {
    const was = told([clip("walk", WALK)]);
    const walk = of(imported(was), "walk");
    const slower = walk.steps.map((step, k) => (k === 0 ? { ...step, duration: 300_000 } : step));
    const own = withClip(imported(was), walk.name, { ...walk, steps: slower, after: "hide" });
    const now = told([clip("walk", [...WALK.slice(0, 3), [3, 50]])]);
    const { project, news } = followed(own, was, now);
    expect(shown(project, "walk")).toEqual([
      [0, 300],
      [1, 100],
      [2, 100],
      [3, 50],
    ]);
    expect(of(project, "walk").after).toBe("hide");
    expect(news).toMatchObject({ changed: ["walk"], kept: [] });
  });

  it("stay as the person has them where both changed the same, and that is said", () => {
    const was = told([clip("walk", WALK)]);
    const walk = of(imported(was), "walk");
    const own = withClip(imported(was), walk.name, { ...walk, steps: walk.steps.map((step) => ({ ...step, duration: 40_000 })) });
    const { project, news } = followed(
      own,
      was,
      told([
        clip(
          "walk",
          WALK.map(([frame]) => [frame, 60]),
        ),
      ]),
    );
    expect(project.clips).toEqual(own.clips);
    expect(news).toMatchObject({ changed: [], kept: ["walk"] });
  });

  it("keep what else their steps have, and the step with which the loop begins", () => {
    const was = told([clip("walk", WALK)]);
    const bare = imported(was);
    const walk = of(bare, "walk");
    const steps = walk.steps.map((step, k) => (k === 2 ? { ...step, events: ["step"], eventValues: [{ name: "step", value: 3 }] } : step));
    const own = setClipRules(withClip(bare, walk.name, { ...walk, steps } as Clip), walk.name, { loopFrom: 2 });
    const { project } = followed(own, was, told([clip("walk", [[7, 30], ...WALK.map(([frame, ms]) => [frame, ms * 2] as const)])]));
    const { steps: now, loopFrom } = of(project, "walk");
    // The file changed all times and the person added an event: both are at the same step.
    expect(now[loopFrom]).toMatchObject({ events: ["step"], eventValues: [{ name: "step", value: 3 }] });
  });

  it("are known by what they show if a person renamed them, and take the file's new names if nobody did", () => {
    const was = told([
      clip("walk", WALK),
      clip("tag 2", [
        [5, 80],
        [6, 80],
      ]),
    ]);
    const stroll = renameClip(addAction(imported(was), "wave", 4), "walk" as ClipName, "stroll");
    const own = setPetal(stroll, "wave" as ActionName, "e", { clip: "tag 2" as ClipName });
    const now = told([
      clip(
        "walk",
        WALK.map(([frame]) => [frame, 70]),
      ),
      clip("wave", [
        [5, 80],
        [6, 80],
      ]),
    ]);
    const { project, news } = followed(own, was, now);
    expect(named(project)).toEqual(["stroll", "wave"]);
    expect(shown(project, "stroll")[0]).toEqual([0, 70]);
    expect(JSON.stringify(project.actions)).toContain('"clip":"wave"');
    expect(news).toMatchObject({ added: [], changed: ["stroll", "wave"] });
  });

  it("do not come back after they were removed, unless that is wanted", () => {
    const was = told([clip("walk", WALK), clip("wave", [[5, 80]])]);
    const own = removeClip(imported(was), "wave" as ClipName);
    const now = told([clip("walk", WALK), clip("wave", [[5, 90]]), clip("rest", [[9, 90]])]);
    expect(named(followed(own, was, now).project)).toEqual(["walk", "rest"]);
    expect(named(followed(own, was, now, { add: "all", removeGone: false }).project)).toEqual(["walk", "wave", "rest"]);
    expect(named(followed(own, was, now, { add: "none", removeGone: false }).project)).toEqual(["walk"]);
    const [source] = own.sources;
    expect(clipsToAdd(own.clips, source as never, now, was).map(({ clip: { name }, isNew }) => [name, isNew])).toEqual([
      ["wave", false],
      ["rest", true],
    ]);
  });

  it("stay if the file has them no more, and go only with a reading that was wrong, if nobody changed them", () => {
    const was = told([clip("walk", WALK), clip("wave", [[5, 80]]), clip("rest", [[9, 90]])]);
    const own = setClipRules(imported(was), "rest" as ClipName, { playback: "once" });
    const now = told([clip("walk", WALK)]);
    const stayed = followed(own, was, now);
    expect([named(stayed.project), stayed.news.unlisted]).toEqual([
      ["walk", "wave", "rest"],
      ["wave", "rest"],
    ]);
    const corrected = followed(own, was, now, { add: "new", removeGone: true });
    expect([named(corrected.project), corrected.news.removed, corrected.news.unlisted]).toEqual([["walk", "rest"], ["wave"], ["rest"]]);
  });

  it("are left alone if nothing says what the file had said before, and it differs", () => {
    const was = told([clip("walk", WALK)]);
    const own = imported(was);
    const now = told([clip("walk", WALK.slice(1)), clip("rest", [[9, 90]])]);
    const { project, news } = followed(own, null, now);
    expect(shown(project, "walk")).toEqual(WALK);
    expect(news).toMatchObject({ added: ["rest"], kept: ["walk"] });
    expect(followed(own, null, was).news).toMatchObject({ added: [], kept: [] });
  });

  it("are not those of another sheet that are called alike", () => {
    const own = porterProject();
    const other = { ...(own.sources[0] as Project["sources"][number]), id: "s2", name: "other" } as Project["sources"][number];
    const both = { ...own, sources: [...own.sources, other] };
    const theirs = addClip(both, [`s2/${other.frames[0]?.key}` as never], "walk");
    const { project, news } = followed(theirs, null, told([clip("walk", WALK)]));
    expect(named(project)).toEqual(["walk", "walk-2"]);
    expect(news.added).toEqual(["walk-2"]);
    // And the file's next version finds it under this name.
    const again = followed(project, told([clip("walk", WALK)]), told([clip("walk", WALK.slice(1))]));
    expect(shown(again.project, "walk-2")).toEqual(WALK.slice(1));
  });

  const someClips = fc
    .uniqueArray(fc.constantFrom("walk", "run", "__proto__", "0001", "Walk", "con"), { minLength: 1 })
    .chain((names) =>
      fc.tuple(
        ...names.map((name) =>
          fc.record({
            name: fc.constant(name),
            playback: fc.constantFrom("loop" as const, "once" as const, "pingpong" as const),
            steps: fc.array(fc.tuple(fc.nat(POSES - 1), fc.integer({ min: 1, max: 900 })), { minLength: 1, maxLength: 6 }),
          }),
        ),
      ),
    )
    .map((clips) => clips.map(({ name, playback, steps }) => clip(name, steps, { playback })));

  it("are as after a fresh import if nobody changed anything, whatever the file said before", () => {
    fc.assert(
      fc.property(someClips, someClips, fc.boolean(), (were, are, packedAnew) => {
        const [was, now] = [told(were), told(are, packedAnew)];
        const { project } = followed(imported(was), was, now, { add: "new", removeGone: true });
        const fresh = imported(now);
        expect(new Set(named(project))).toEqual(new Set(named(fresh)));
        for (const name of named(fresh)) {
          expect(shown(project, name)).toEqual(shown(fresh, name));
          expect(of(project, name).playback).toBe(of(fresh, name).playback);
        }
      }),
    );
  });

  it("are untouched if the file says what it said", () => {
    fc.assert(
      fc.property(someClips, someClips, (were, others) => {
        const was = told(were);
        const own = imported(told(others));
        const { project, news } = followed(own, was, was);
        const left = project.clips.filter((each) => own.clips.includes(each));
        expect(left).toEqual(own.clips);
        expect(news.changed).toEqual([]);
      }),
    );
  });
});

describe("the actions of clips that follow a metadata file", () => {
  const facing = (name: string, frame: number) => ({ ...clip(name, [[frame, 100]]), ref: name });
  const [e, s, n] = [facing("walk-e", 0), facing("walk-s", 1), facing("walk-n", 2)] as const;
  const walk = (ways: ArrivedAction["ways"], facings: ArrivedAction["facings"]) => [
    { name: "walk", ways, facings, mirror: true, namesClips: false },
  ];
  const WALK = "walk" as ActionName;

  /** The file says more clips than before, and the review has proposed these actions. */
  function joined(before: Project, actions: readonly ArrivedAction[]): Project {
    const arrived = noArrivedClips();
    const now = told([e, s, n]);
    const after = cutByMetadata(before, PORTER, cut, now.frames, now.frames);
    const { project } = withClipsAsTold(before, after, PORTER, now, told([e, s]), NEW, arrived);
    return withArrivedActions(project, actions, arrived.named);
  }
  const plain = () =>
    setPetal(setPetal(addAction(imported(told([e, s])), WALK, 4), WALK, "e", { clip: "walk-e" as ClipName }), WALK, "s", {
      clip: "walk-s" as ClipName,
    });
  const all = walk(4, { e: "walk-e", s: "walk-s", n: "walk-n" });

  it("gain the new ones, whatever they are called by now, and no mirrors that nobody wanted", () => {
    const project = joined(renameAction(plain(), WALK, "stroll"), all);
    expect(project.actions.map(({ name }) => name)).toEqual(["stroll"]);
    expect(project.actions[0]?.facings).toEqual({ e: { clip: "walk-e" }, s: { clip: "walk-s" }, n: { clip: "walk-n" } });
  });

  it("are mirrored on if they have mirrors", () => {
    const project = joined(mirrorMissing(plain(), WALK), walk(8, { e: "walk-e", s: "walk-s", n: "walk-n" }));
    expect(project.actions[0]?.facings.w).toEqual({ clip: "walk-e", mirror: true });
  });

  it("keep what a person put into a facing", () => {
    const other = setPetal(plain(), WALK, "n", { clip: "walk-s" as ClipName });
    expect(joined(other, all).actions).toEqual(other.actions);
  });

  it("are made anew of all their clips if there is none", () => {
    const { actions } = joined(imported(told([e, s])), all);
    expect(actions).toHaveLength(1);
    expect(actions[0]?.facings).toMatchObject({ e: { clip: "walk-e" }, s: { clip: "walk-s" }, n: { clip: "walk-n" }, w: { mirror: true } });
  });
});
