import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { ClipName, FrameRef, Project } from "../model";
import {
  addAction,
  addClip,
  copyEvents,
  moveClips,
  removeClips,
  renameClips,
  setDurationsInTurn,
  setFpsOfClips,
  setPetal,
  setRulesOfClips,
  setStepEvents,
} from ".";
import { porterProject } from "./project.fixture";

const refs = ["s1/c0r0", "s1/c1r0", "s1/c2r0", "s1/c3r0"] as FrameRef[];
const [a, b, c, d] = ["a", "b", "c", "d"] as ClipName[] as [ClipName, ClipName, ClipName, ClipName];
const base = [a, b, c, d].reduce((project: Project, name) => addClip(project, refs, name), porterProject());
const names = (project: Project) => project.clips.map(({ name }) => name).join("");
const times = (project: Project, name: string) =>
  project.clips.find((clip) => clip.name === name)?.steps.map(({ duration }) => duration / 1000);

describe("several clips at once", () => {
  it("get one speed and one playback, others stay", () => {
    const paced = setRulesOfClips(setFpsOfClips(base, [a, c], 5), [a, c], { playback: "once", after: "hide" });
    expect([times(paced, "a"), times(paced, "b"), times(paced, "c")]).toEqual([Array(4).fill(200), Array(4).fill(100), Array(4).fill(200)]);
    expect(paced.clips.map(({ playback }) => playback)).toEqual(["once", "loop", "once", "loop"]);
    expect(() => setFpsOfClips(base, [a, c], 0)).toThrow(/above 0/);
  });

  it("are renamed by a pattern, swapping names too, and actions follow", () => {
    const action = setPetal(addAction(base, "walk", 1), "walk" as never, "s", { clip: b });
    const renamed = renameClips(action, [a, b], "hero-{name}-{n}", 1);
    expect(renamed.clips.map(({ name }) => name)).toEqual(["hero-a-1", "hero-b-2", "c", "d"]);
    expect(renamed.actions[0]?.facings.s?.clip).toBe("hero-b-2");
    expect(renameClips(base, [a, b], "{name}", 0)).toBe(base);
    expect(() => renameClips(base, [a, b], "same", 0)).toThrow(/Two clips/);
    expect(() => renameClips(base, [a], "d", 0)).toThrow(/Two clips/);
    expect(renameClips(base, [a], "$&{n}", 7).clips[0]?.name).toBe("$&7");
  });

  it("move together, keep their order, and stop at the ends", () => {
    expect(names(moveClips(base, [b, c], -1))).toBe("bcad");
    expect(names(moveClips(base, [b, c], 1))).toBe("adbc");
    expect(names(moveClips(base, [a, c], -1))).toBe("acbd");
    expect(moveClips(base, [a, b], -1)).toBe(base);
    fc.assert(
      fc.property(fc.subarray([a, b, c, d]), fc.array(fc.constantFrom<-1 | 1>(-1, 1), { maxLength: 9 }), (chosen, ways) => {
        const moved = ways.reduce((project, by) => moveClips(project, chosen, by), base);
        const order = (list: string) => [...list].filter((name) => (chosen as string[]).includes(name)).join("");
        expect(order(names(moved))).toBe(order(names(base)));
        expect([...names(moved)].sort().join("")).toBe("abcd");
      }),
    );
  });

  it("get the events of one, step by step, replacing their own; different lengths are refused and nothing changes", () => {
    const eventful = setStepEvents(setStepEvents(base, a, [0, 2], ["footfall"]), b, [1], ["swish"]);
    const events = (project: Project) => project.clips.map(({ steps }) => steps.map((step) => step.events?.join() ?? "").join(" "));
    expect(events(copyEvents(eventful, a, [b, c]))).toEqual(["footfall  footfall ", "footfall  footfall ", "footfall  footfall ", "   "]);
    expect(events(copyEvents(eventful, d, [b]))[1]).toBe("   ");
    expect(copyEvents(eventful, c, [d])).toBe(eventful);
    const shorter = addClip(eventful, refs.slice(0, 3), "e");
    expect(() => copyEvents(shorter, a, [b, "e" as ClipName])).toThrow(/3 steps, and a has 4/);
  });

  it("are removed together", () => expect(names(removeClips(base, [a, d]))).toBe("bc"));
});

describe("durations in turn", () => {
  it("are set one by one, repeating if there are fewer, and refused if there are more", () => {
    expect(times(setDurationsInTurn(base, a, [0, 1, 2, 3], [150_000, 150_000, 400_000, 50_000]), "a")).toEqual([150, 150, 400, 50]);
    expect(times(setDurationsInTurn(base, a, [0, 1, 2, 3], [120_000, 80_000]), "a")).toEqual([120, 80, 120, 80]);
    expect(times(setDurationsInTurn(base, a, [1, 3], [50_000]), "a")).toEqual([100, 50, 100, 50]);
    expect(() => setDurationsInTurn(base, a, [0], [1000, 2000])).toThrow(/2 durations for 1 step/);
    expect(() => setDurationsInTurn(base, a, [0, 1], [0])).toThrow();
  });
});
