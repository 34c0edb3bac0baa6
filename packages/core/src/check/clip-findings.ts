/** Findings about how a clip moves: blanks, doubled frames, a seam in a loop, steps too short for any display, jumps in size. */

import { makeEqual, mergeEqualSteps, removeSteps, setClipRules, setStepDurations } from "../edit";
import { type Clip, counted, type FrameRef, findFrame, frameSize, type Micros, type Project } from "../model";
import { t } from "../words";
import type { Finding } from "./finding";

/** How long a display of 60 pictures a second shows each. */
const REFRESH: Micros = 16_667;

/** The findings of one clip whose frames are all there. Cost: O(steps). */
export function movementFindings(project: Project, clip: Clip): Finding[] {
  return [
    ...blanks(project, clip),
    ...equalNeighbours(clip),
    ...seam(clip),
    ...tooFast(clip),
    ...oddSizes(project, clip),
    ...wayOfPlaying(project, clip),
  ];
}

function finding(clip: Clip, steps: readonly number[], rest: Pick<Finding, "code" | "message" | "mend">): Finding {
  return { severity: "note", where: t('clip "{name}"', { name: clip.name }), place: { stop: "clips", clip: clip.name, steps }, ...rest };
}

function blanks(project: Project, clip: Clip): Finding[] {
  const steps = clip.steps.flatMap(({ frame }, k) => (findFrame(project, frame)?.frame.empty ? [k] : []));
  if (steps.length === 0) return [];
  return [
    finding(clip, steps, {
      code: "blank-steps",
      message: t("Nothing is drawn in {steps}, so it blinks.", { steps: counted(steps.length, "of its steps", "of its steps") }),
      mend: { label: t("Remove them"), apply: (current) => removeSteps(current, clip.name, steps) },
    }),
  ];
}

function equalNeighbours(clip: Clip): Finding[] {
  const steps = clip.steps.flatMap(({ frame, events }, k) =>
    k > 0 && k !== clip.loopFrom && !events?.length && clip.steps[k - 1]?.frame === frame ? [k] : [],
  );
  if (steps.length === 0) return [];
  return [
    finding(clip, steps, {
      code: "equal-neighbours",
      message: t("{steps} the same frame as the one before. One longer step does the same.", {
        steps: counted(steps.length, "step shows", "steps show"),
      }),
      mend: { label: t("Merge each into one"), apply: (current) => mergeEqualSteps(current, clip.name) },
    }),
  ];
}

/** In a loop, the first step follows the last: with the same frame, it pauses for two steps. */
function seam(clip: Clip): Finding[] {
  const last = clip.steps.length - 1;
  const first = clip.steps[clip.loopFrom];
  if (clip.playback !== "loop" || clip.times === 1 || last - clip.loopFrom < 2 || first?.frame !== clip.steps[last]?.frame) return [];
  return [
    finding(clip, [last], {
      code: "doubled-seam",
      message: t("It ends with the frame that it begins with, so the loop pauses there for two steps."),
      mend: { label: t("Remove the last step"), apply: (current) => removeSteps(current, clip.name, [last]) },
    }),
  ];
}

function tooFast(clip: Clip): Finding[] {
  const steps = clip.steps.flatMap(({ duration }, k) => (duration < REFRESH - 1 ? [k] : []));
  if (steps.length === 0) return [];
  return [
    finding(clip, steps, {
      code: "too-fast",
      message: t("{steps} shorter than a refresh of a 60 Hz display; some will never be seen.", {
        steps: counted(steps.length, "step is", "steps are"),
      }),
      mend: { label: t("Make them 16.667 ms"), apply: (current) => setStepDurations(current, clip.name, steps, REFRESH) },
    }),
  ];
}

/** One frame of another size among equals makes the figure jump, unless its origin is as careful as its art. */
function oddSizes(project: Project, clip: Clip): Finding[] {
  const sizes = clip.steps.map(({ frame }) => {
    const found = findFrame(project, frame);
    return found ? `${frameSize(found.source, found.frame).w} × ${frameSize(found.source, found.frame).h}` : "";
  });
  const counts = new Map<string, number>();
  for (const size of sizes) counts.set(size, (counts.get(size) ?? 0) + 1);
  if (counts.size < 2) return [];
  const [usual, count] = [...counts].reduce((best, each) => (each[1] > best[1] ? each : best));
  const steps = sizes.flatMap((size, k) => (size === usual ? [] : [k]));
  if (count < sizes.length * 0.7) return [];
  const refs = [...new Set(clip.steps.map(({ frame }) => frame))] as FrameRef[];
  return [
    finding(clip, steps, {
      code: "odd-size-steps",
      message:
        steps.length === 1
          ? t("{steps} that is not {usual} px like the others.", {
              steps: counted(steps.length, "step shows a frame", "steps show frames"),
              usual,
            })
          : t("{steps} that are not {usual} px like the others.", {
              steps: counted(steps.length, "step shows a frame", "steps show frames"),
              usual,
            }),
      mend: { label: t("Make all equal, feet on feet"), apply: (current) => makeEqual(current, refs, "feet") },
    }),
  ];
}

/** Words in clip names that suggest how such movements usually play. */
const ONE_SHOTS =
  /^(burst|explo(de|sion)|open(ing)?|close|closing|hit|hurt|die|death|dying|attack|strike|slash|jump|land(ing)?|spawn|vanish|poof|puff|splash|fall)$/;
const ENDLESS = /^(idle|walk(ing)?|run(ning)?|stand(ing)?|loop|burn(ing)?|spin(ning)?|hover|swim(ming)?|fly(ing)?|breath(e|ing)|flow)$/;

/** An effect that never ends, or a gait that stops after one loop: recognised by words in the name, and by a clip that fades to nothing. */
function wayOfPlaying(project: Project, clip: Clip): Finding[] {
  const words = [...clip.name.matchAll(/\p{Lu}?[\p{Ll}]+|\p{Lu}+/gu)].map(([word]) => word.toLowerCase());
  const endless = clip.playback !== "once" && clip.times === 0;
  const oneShot = words.some((word) => ONE_SHOTS.test(word));
  const goesOn = words.some((word) => ENDLESS.test(word));
  const last = clip.steps.at(-1);
  const fades = clip.steps.length > 2 && last !== undefined && findFrame(project, last.frame)?.frame.empty === true;
  if (endless && (fades || (oneShot && !goesOn)))
    return [
      finding(clip, [], {
        code: "endless-effect",
        message: fades
          ? t("It plays forever, but it ends with nothing drawn, as an effect does.")
          : t("It plays forever, but its name suggests that it happens once, as an effect does."),
        mend: {
          label: t("Play it once, then hide"),
          apply: (current) => setClipRules(current, clip.name, { playback: "once", after: "hide" }),
        },
      }),
    ];
  if (clip.playback === "once" && goesOn && !oneShot && clip.steps.length > 1)
    return [
      finding(clip, [], {
        code: "stops-short",
        message: t("It plays once and stops, but its name suggests a loop."),
        mend: { label: t("Play it in a loop"), apply: (current) => setClipRules(current, clip.name, { playback: "loop", times: 0 }) },
      }),
    ];
  return [];
}
