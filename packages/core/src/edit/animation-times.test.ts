import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { placeOf } from "../frame-identity";
import { type Clip, type ClipName, emptyProject, microsFromMs, type Project, type Source } from "../model";
import { clearPixels, coverageOf, drawingsIn, type Pixels } from "../raster";
import { takeIn } from "./add-sources";
import { withAnimationFollowed } from "./animation-times";
import { removeClip, removeSteps, renameClip, setClipRules } from "./clips";
import { refreshSource } from "./cutting";
import { takeResizedArt } from "./resized-art";
import { setStepDurations } from "./times";

/** A picture of an animation: its drawing by number, equal ones look alike; and how long it is shown, in ms. */
type Shown = readonly [drawing: number, ms: number];

const SIDE = 8;

function drawn(drawing: number, times = 1): Pixels {
  const pixels = clearPixels(SIDE * times, SIDE * times);
  for (let y = times; y < 7 * times; y++)
    for (let x = times; x < 6 * times; x++)
      pixels.bytes.set(
        [drawing % 256, drawing >> 8, (Math.floor(x / times) * Math.floor(y / times) * 7) % 256, 255],
        (y * pixels.width + x) * 4,
      );
  return pixels;
}

const picturesOf = (shown: readonly Shown[], times = 1) =>
  shown.map(([drawing, ms]) => ({
    sha256: `${times}${drawing}`.padStart(64, "0"),
    ...{ width: SIDE * times, height: SIDE * times },
    duration: microsFromMs(ms),
  }));
const coveragesOf = (shown: readonly Shown[], times = 1) => shown.map(([drawing]) => coverageOf(drawn(drawing, times)));

/** A project with the animation and its clip, as a drop of its file makes them. */
function imported(shown: readonly Shown[]): Project {
  const steps = shown.map(([, ms], frame) => ({ frame, duration: microsFromMs(ms) }));
  const clip = { name: "spark", playback: "loop", times: 0, steps } as const;
  return takeIn(emptyProject("sparks"), [{ name: "spark", pictures: picturesOf(shown), coverages: coveragesOf(shown), clips: [clip] }]);
}

const source = ({ sources }: Project) => sources[0] as Source;
const clip = ({ clips }: Project) => clips[0] as Clip;

/** The file comes again, its frames going with their drawings. */
function again(project: Project, was: readonly Shown[], shown: readonly Shown[]): Project {
  const prints = (of: Source, list: readonly Shown[], nameOf: (frame: Source["frames"][number]) => string) =>
    new Map(
      of.frames.flatMap((frame) => {
        const [print] = drawingsIn(drawn((list[frame.picture ?? 0] as Shown)[0]), [frame.rect]);
        return print ? [[nameOf(frame), print] as const] : [];
      }),
    );
  const args = [source(project).id, picturesOf(shown), coveragesOf(shown)] as const;
  const plain = source(refreshSource(project, ...args));
  const drawings = { before: prints(source(project), was, ({ key }) => key), after: prints(plain, shown, placeOf) };
  return refreshSource(project, ...args, drawings);
}

/** What the clip shows, as drawings and times; null for frames that are gone. */
function played(project: Project, list: readonly Shown[], of: Clip = clip(project)): (readonly [number | null, number])[] {
  const { id, frames } = source(project);
  return of.steps.map(({ frame, duration }) => {
    const found = frames.find(({ key }) => frame === `${id}/${key}`);
    return [found ? (list[found.picture ?? 0] as Shown)[0] : null, duration / 1000];
  });
}

const newsOf = (before: Project, after: Project, shown: readonly Shown[]) =>
  withAnimationFollowed(before, after, source(after).id, picturesOf(shown)).news;

const FIRST: readonly Shown[] = [
  [1, 100],
  [2, 100],
  [3, 200],
];

describe("a clip of an animation whose file comes again", () => {
  it("has its new times", () => {
    const shown = FIRST.map(([drawing], k) => [drawing, 50 + 10 * k] as const);
    const next = again(imported(FIRST), FIRST, shown);
    expect(played(next, shown)).toEqual(shown);
    expect(source(next).pictures.map(({ duration }) => duration)).toEqual([50_000, 60_000, 70_000]);
    expect(source(next).frames).toEqual(source(imported(FIRST)).frames);
    expect(refreshSource.label(imported(FIRST), source(next).id, picturesOf(shown), [])).toBe("use the new times of spark");
  });

  it("keeps times that a person set, and says so where the file has other ones now", () => {
    const project = setStepDurations(imported(FIRST), "spark" as ClipName, [0, 1], 40_000);
    const shown: Shown[] = [
      [1, 100],
      [2, 150],
      [3, 300],
    ];
    const next = again(project, FIRST, shown);
    expect(played(next, shown)).toEqual([
      [1, 40],
      [2, 40],
      [3, 300],
    ]);
    expect(newsOf(project, next, shown)).toMatchObject({ changed: ["spark"], kept: ["spark"] });
  });

  it("shows a new picture, and a lost one no more", () => {
    const shown: Shown[] = [
      [1, 100],
      [9, 80],
      [3, 200],
      [4, 60],
    ];
    const next = again(imported(FIRST), FIRST, shown);
    expect(played(next, shown)).toEqual(shown);
  });

  it("shows a new picture also where the times of others were changed here and in the file", () => {
    const project = setStepDurations(imported(FIRST), "spark" as ClipName, [0], 40_000);
    const shown: Shown[] = [
      [1, 80],
      [9, 60],
      [2, 100],
      [3, 120],
    ];
    const next = again(project, FIRST, shown);
    expect(played(next, shown)).toEqual([
      [1, 40],
      [9, 60],
      [2, 100],
      [3, 120],
    ]);
    expect(newsOf(project, next, shown)).toMatchObject({ changed: ["spark"], kept: ["spark"] });
  });

  it("goes with pictures that changed places, also under another name and with other rules", () => {
    const named = setClipRules(renameClip(imported(FIRST), "spark" as ClipName, "flash" as ClipName), "flash" as ClipName, {
      playback: "pingpong",
    });
    const shown: Shown[] = [
      [3, 200],
      [1, 100],
      [2, 70],
    ];
    const next = again(named, FIRST, shown);
    expect(clip(next)).toMatchObject({ name: "flash", playback: "pingpong" });
    expect(played(next, shown)).toEqual(shown);
  });

  it("stays as it is if stills come that have no times, whose file's times are still known", () => {
    const shown: Shown[] = [
      [1, 100],
      [7, 100],
      [3, 200],
    ];
    const project = imported(FIRST);
    const stills = picturesOf(shown).map(({ duration: _none, ...still }) => still);
    const next = refreshSource(project, source(project).id, stills, coveragesOf(shown));
    expect(clip(next).steps.map(({ duration }) => duration)).toEqual([100_000, 100_000, 200_000]);
    expect(source(next).pictures.map(({ duration }) => duration)).toEqual([100_000, 100_000, 200_000]);
    expect(withAnimationFollowed(project, next, source(next).id, stills).project).toBe(next);
  });

  it("is not made again if it was removed", () => {
    const shown = FIRST.map(([drawing, ms]) => [drawing, ms * 2] as const);
    const next = again(removeClip(imported(FIRST), "spark" as ClipName), FIRST, shown);
    expect(next.clips).toEqual([]);
    expect(source(next).pictures[0]?.duration).toBe(200_000);
  });

  it("has its new times at another size, too", () => {
    const project = imported(FIRST);
    const shown = FIRST.map(([drawing, ms]) => [drawing, ms / 2] as const);
    const next = takeResizedArt(project, source(project).id, picturesOf(shown, 2), coveragesOf(shown, 2), 2);
    expect(played(next, shown)).toEqual(shown);
  });

  it("is just what the file says, whatever that becomes, if nobody changed it", () => {
    const list = fc.uniqueArray(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 400 })), {
      minLength: 2,
      maxLength: 7,
      selector: ([drawing]) => drawing,
    });
    fc.assert(
      fc.property(list, fc.array(list, { minLength: 1, maxLength: 3 }), (first, comings) => {
        let [project, was] = [imported(first), first as readonly Shown[]];
        for (const shown of comings) {
          project = again(project, was, shown);
          expect(played(project, shown)).toEqual(shown);
          was = shown;
        }
      }),
      { numRuns: 60 },
    );
  });

  it("keeps each time that only a person changed", () => {
    const times = fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 5, maxLength: 5 });
    fc.assert(
      fc.property(times, times, times, (first, own, now) => {
        const list = (each: readonly number[]) => each.map((ms, k) => [k + 1, ms * 50] as const);
        const named = "spark" as ClipName;
        const mine = own.reduce((project, ms, k) => setStepDurations(project, named, [k], ms * 50_000), imported(list(first)));
        const next = again(mine, list(first), list(now));
        const expected = own.map((ms, k) => (ms === first[k] ? (now[k] as number) : ms));
        expect(played(next, list(now)).map(([, ms]) => ms / 50)).toEqual(expected);
      }),
      { numRuns: 60 },
    );
  });

  it("keeps a step that a person removed out", () => {
    const project = removeSteps(imported(FIRST), "spark" as ClipName, [1]);
    const shown = FIRST.map(([drawing, ms]) => [drawing, ms + 50] as const);
    expect(played(again(project, FIRST, shown), shown).map(([drawing]) => drawing)).toEqual([1, 3]);
  });
});
