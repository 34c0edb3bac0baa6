/** Edits outlines of frames: tracing settings, and corners set by a person. */
import { carriedOutline, frameWithMarks, marksWith } from "../marks";
import {
  CaravanError,
  type FrameMarks,
  type FrameRef,
  findFrame,
  type MarkKind,
  type MarkName,
  markNamed,
  type Outline,
  type OutlineKind,
  type PlacedFrame,
  type Project,
  type SteadyWay,
  Trace,
} from "../model";
import { areaOf, isSimple } from "../outline";
import { inLanguage, t } from "../words";
import { edit } from "./edit";
import { withFrames } from "./with-frames";

/** Changes how a kind is traced; null for by hand alone. What a person set on frames stays. Throws `bad-number`, `not-found`. */
export const setTrace = edit(
  (_project, name: MarkName, change: Partial<Trace> | null) =>
    change === null
      ? t("stop tracing {name}", { name })
      : t("trace {name} {how}", {
          name,
          how: inLanguage(Object.keys(change).length === 1 ? (WORDS[Object.keys(change)[0] ?? ""] ?? "otherwise") : "otherwise"),
        }),
  (project, name, change) => {
    const { trace, ...kind } = outlineKind(project, name);
    if (change === null) return trace ? withKind(project, kind) : project;
    const wanted = { alpha: 1, withinPx: 1, corners: 24, convex: false, ...trace, ...change };
    const present = Object.fromEntries(Object.entries(wanted).filter(([, value]) => value !== undefined));
    const checked = Trace.safeParse(present);
    if (!checked.success)
      throw new CaravanError(
        "bad-number",
        t("outline {name}", { name }),
        t("It cannot be traced with these settings."),
        t("Choose numbers within their bounds."),
      );
    return JSON.stringify(checked.data) === JSON.stringify(trace) ? project : withKind(project, { ...kind, trace: checked.data });
  },
);

const WORDS: Readonly<Record<string, string>> = {
  withinPx: "more or less closely",
  corners: "with other corners",
  alpha: "from another alpha",
  growPx: "larger or smaller",
  flat: "with another bottom",
  convex: "with or without dents",
  parts: "in other parts",
  steady: "as steadily",
  leastPx: "around other islands",
};

/** One outline for all frames of an action or a clip; null for one each again. Throws `not-found`. */
export const steadyOutline = edit(
  (_project, name: MarkName, of: string, by: SteadyWay | null) =>
    by === null ? t("trace {name} of {of} frame by frame", { name, of }) : t("steady {name} of {of}", { name, of }),
  (project, name, of, by) => {
    const { trace } = outlineKind(project, name);
    if (by !== null && !project.clips.some((clip) => clip.name === of) && !project.actions.some((action) => action.name === of))
      throw new CaravanError("not-found", of, t("There is no such clip or action."), t("Choose another one."));
    const others = (trace?.steady ?? []).filter((each) => each.of !== of);
    const steady = by === null ? others : [...others, { of, by }];
    return setTrace(project, name, { ...trace, steady: steady.length > 0 ? steady : undefined });
  },
);

/**
 * Sets the outlines of frame `at`, and gives all other `refs` the same ones relative to their origins; null restores traced ones. Throws
 * `bad-outline` for one that crosses itself.
 */
export const setOutlines = edit(
  (_project, of: string, _refs: readonly FrameRef[], name: MarkName, _at: FrameRef, outlines: readonly Outline[] | null) =>
    outlines === null
      ? t("trace {name} of {of} again", { name, of })
      : outlines.length === 0
        ? t("remove {name} from {of}", { name, of })
        : t("draw {name} on {of}", { name, of }),
  (project, _of, refs, name, at, outlines) => {
    outlineKind(project, name);
    const checked = outlines === null ? null : outlines.map((each) => checkedOutline(each, name));
    const from = findFrame(project, at);
    if (!from) throw new CaravanError("missing-frame", at, t("This frame no longer exists."), t("Choose another step."));
    const set = (placed: PlacedFrame): FrameMarks | undefined =>
      marksWith(placed.frame.marks, name, {
        outlines: checked && (placed.frame === from.frame ? checked : checked.map((each) => carriedOutline(each, from, placed))),
      });
    return withFrames(project, new Set(refs), (placed) => frameWithMarks(placed.frame, set(placed)));
  },
);

const MOST_CORNERS = 65_536;
/** No frame is larger; anything further out is a slip. */
const FURTHEST = 32_768; // px

/** Clockwise. A corner on a straight edge stays: it is on its way to somewhere. */
function checkedOutline(corners: Outline, name: MarkName): Outline {
  if (corners.length > MOST_CORNERS || !corners.every(({ x, y }) => isWhole(x) && isWhole(y)))
    throw new CaravanError(
      "bad-number",
      t("outline {name}", { name }),
      t("Its corners are at whole pixels."),
      t("Type a number such as 12."),
    );
  if (!isSimple(corners))
    throw new CaravanError(
      "bad-outline",
      t("outline {name}", { name }),
      t("It would cross or touch itself, so it would have no clear inside."),
      t("Put the corner where it crosses no other edge."),
    );
  return areaOf(corners) > 0 ? corners : corners.toReversed();
}

function isWhole(value: number): boolean {
  return Number.isInteger(value) && Math.abs(value) <= FURTHEST;
}

function outlineKind(project: Project, name: MarkName): OutlineKind {
  const kind = markNamed(project, name);
  if (kind.shape !== "outline") throw new CaravanError("not-found", name, t("These are no outlines."), t("Choose outlines."));
  return kind;
}

function withKind(project: Project, kind: MarkKind): Project {
  return { ...project, marks: project.marks.map((each) => (each.name === kind.name ? kind : each)) };
}
