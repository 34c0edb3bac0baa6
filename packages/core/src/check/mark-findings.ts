/** Findings about boxes and points through a clip: a step that lacks what all others have, a step on which a box jumps. */
import { boxesOf, copyMarks, fillPoint, setBoxes } from "../edit";
import { hasMark } from "../marks";
import { type Box, type Clip, type FrameRef, findFrame, type MarkKind, originOf, type PlacedFrame, type Project } from "../model";
import { t } from "../words";
import { type Finding, namingSteps, sentence } from "./finding";

/** Of a clip whose frames are all there. Cost: O(kinds × steps). */
export function markFindings(project: Project, clip: Clip): Finding[] {
  if (project.marks.length === 0) return [];
  const shown = clip.steps.map(({ frame }) => ({ ref: frame, placed: findFrame(project, frame) as PlacedFrame }));
  return project.marks.flatMap((kind) => {
    // Frames without outlines of their own have traced ones.
    if (kind.shape === "outline" && kind.trace) return [];
    const has = shown.map(({ placed: { frame } }) => hasMark(frame.marks, kind.name));
    return has.includes(true) ? [...missing(clip, kind, shown, has), ...jumping(clip, kind, shown)] : [];
  });
}

type Shown = readonly { readonly ref: FrameRef; readonly placed: PlacedFrame }[];

/** A kind that this share of the steps has is meant to be on all of them. What a blow hits is not. */
const MOSTLY = 0.75;

function missing(clip: Clip, kind: MarkKind, shown: Shown, has: readonly boolean[]): Finding[] {
  const steps = has.flatMap((each, k) => (each ? [] : [k]));
  if (steps.length === 0 || shown.length - steps.length < shown.length * MOSTLY) return [];
  return [
    finding(clip, kind, steps, {
      code: "mark-missing",
      ...namingSteps((named) =>
        sentence(
          steps.length === 1
            ? t("{steps} has no {name}, but all others do.", { steps: named(steps), name: kind.name })
            : t("{steps} have no {name}, but all others do.", { steps: named(steps), name: kind.name }),
        ),
      ),
      mend:
        kind.shape === "point"
          ? { label: t("Interpolate it"), apply: (project) => fillPoint(project, clip.name, kind.name) }
          : {
              label: t("Copy it from the previous step"),
              apply: (project) =>
                steps.reduce((next, step) => {
                  const before = nearestBefore(has, step);
                  const [from, to] = [shown[before]?.ref as FrameRef, shown[step]?.ref as FrameRef];
                  return copyMarks(next, clip.name, [to], kind.name, from);
                }, project),
            },
    }),
  ];
}

/** The last step before this one that has it, round the end of the clip. */
function nearestBefore(has: readonly boolean[], step: number): number {
  for (let k = 1; k < has.length; k++) {
    const at = (step - k + has.length) % has.length;
    if (has[at]) return at;
  }
  return step;
}

/**
 * Finds single steps on which the box's lower edge differs from both neighbours, relative to the origin, so that the character drops or
 * climbs. Half a pixel does not count: origins may lie between pixels, boxes do not.
 */
function jumping(clip: Clip, kind: MarkKind, shown: Shown): Finding[] {
  const floors = shown.map(({ placed }) => {
    const boxes = boxesOf(placed.frame, kind.name);
    const box = boxes[0];
    return box && boxes.length === 1 ? box.y + box.h - originOf(placed.source, placed.frame).y : null;
  });
  const steps: number[] = [];
  for (let k = 1; k + 1 < floors.length; k++) {
    const [before, floor, after] = [floors[k - 1] ?? null, floors[k] ?? null, floors[k + 1] ?? null];
    if (floor !== null && before !== null && before === after && Math.abs(floor - before) >= 1) steps.push(k);
  }
  if (steps.length === 0) return [];
  const by = (k: number) => Math.round((floors[k - 1] as number) - (floors[k] as number));
  const first = by(steps[0] as number);
  const what =
    steps.length === 1
      ? first > 0
        ? t("On one step the lower edge of {name} lies {first} px higher than before and after it", {
            name: kind.name,
            first: Math.abs(first),
          })
        : t("On one step the lower edge of {name} lies {first} px lower than before and after it", {
            name: kind.name,
            first: Math.abs(first),
          })
      : t("On {steps} steps the lower edge of {name} lies elsewhere than before and after", { steps: steps.length, name: kind.name });
  return [
    finding(clip, kind, steps, {
      code: "box-jumps",
      message: t("{what}: the character may drop and climb as it moves.", { what }),
      mend: {
        label: t("Level it with its neighbours"),
        apply: (project) =>
          setBoxes(
            project,
            clip.name,
            kind.name,
            new Map(
              steps.map((k) => [
                shown[k]?.ref as FrameRef,
                [raised(boxesOf((shown[k] as Shown[number]).placed.frame, kind.name)[0] as Box, by(k))],
              ]),
            ),
          ),
      },
    }),
  ];
}

function raised(box: Box, by: number): Box {
  return { ...box, h: Math.max(1, box.h + by) };
}

function finding(
  clip: Clip,
  kind: MarkKind,
  steps: readonly number[],
  rest: Pick<Finding, "code" | "message" | "messageFrom" | "mend">,
): Finding {
  return {
    severity: "note",
    where: t('clip "{name}"', { name: clip.name }),
    place: { stop: "marks", clip: clip.name, mark: kind.name, steps },
    ...rest,
  };
}
