/** Findings about outlines: a bottom that dips on some steps, too many corners, self-crossing. */
import { setOutlines, setTrace, steadyOutline } from "../edit";
import { type FrameOutlines, type OutlineFacts, outlineFacts, outlineKinds, outlinesIn } from "../marks";
import { type Clip, counted, type FrameRef, findFrame, frameName, frameRef, type OutlineKind, ownOf, type Project } from "../model";
import { isSimple } from "../outline";
import { t } from "../words";
import type { Finding } from "./finding";

/** The outlines of frames as they are traced now; frames that were not looked at are not among them. */
export type SeenOutlines = ReadonlyMap<FrameRef, FrameOutlines>;

/** Of a clip whose frames are all there. Cost: O(kinds × steps). */
export function outlineFindings(project: Project, clip: Clip, seen: SeenOutlines): Finding[] {
  return outlineKinds(project).flatMap((kind) => dips(project, clip, kind, seen));
}

/** A level shared by this fraction of the steps is the ground; leaping figures have none. */
const MOSTLY = 0.5;
/** A figure that is off the ground by more than this share of its height means it. */
const LEAP = 0.25;

function dips(project: Project, clip: Clip, kind: OutlineKind, seen: SeenOutlines): Finding[] {
  const facts = clip.steps.map(({ frame }) => {
    const placed = findFrame(project, frame);
    return placed ? outlineFacts(placed, ownOf(seen.get(frame), kind.name)?.polygons ?? []) : null;
  });
  const there = facts.filter((each): each is OutlineFacts => each !== null);
  const counts = new Map<number, number>();
  for (const { bottom } of there) counts.set(bottom, (counts.get(bottom) ?? 0) + 1);
  const [ground, most] = [...counts].sort(([, a], [, b]) => b - a)[0] ?? [0, 0];
  if (there.length < 2 || most < there.length * MOSTLY) return [];
  const steps = facts.flatMap((each, k) =>
    each && each.bottom !== ground && Math.abs(each.bottom - ground) <= each.height * LEAP ? [k] : [],
  );
  if (steps.length === 0) return [];
  const by = (facts[steps[0] as number] as OutlineFacts).bottom - ground;
  const where =
    by > 0 ? t("{by} px lower than on the others", { by: Math.abs(by) }) : t("{by} px higher than on the others", { by: Math.abs(by) });
  const what =
    steps.length === 1
      ? t("On one step the lower edge of {name} lies {where}", { name: kind.name, where })
      : t("On {steps} steps the lower edge of {name} lies elsewhere than on the others, on the first {where}", {
          steps: steps.length,
          name: kind.name,
          where,
        });
  const mends = [
    {
      label: t("One outline for all of {name}", { name: clip.name }),
      apply: (current: Project) => steadyOutline(current, kind.name, clip.name, "median"),
    },
    { label: t("A straight bottom on the ground"), apply: (current: Project) => setTrace(current, kind.name, { flat: true }) },
  ];
  const isTraced = kind.trace !== undefined && !steps.some((k) => seen.get(clip.steps[k]?.frame as FrameRef)?.[kind.name]?.own);
  const [mend, ...otherMends] = isTraced ? mends.filter((_, k) => k === 0 || !kind.trace?.flat) : [];
  return [
    {
      code: "outline-dips",
      severity: "note",
      where: t('clip "{name}"', { name: clip.name }),
      message: t("{what}: the character may drop and climb as it moves.", { what }),
      place: { stop: "marks", clip: clip.name, mark: kind.name, steps },
      ...(mend ? { mend, otherMends } : {}),
    },
  ];
}

/** What concerns kinds as a whole. Cost: O(frames). */
export function kindFindings(project: Project, seen: SeenOutlines): Finding[] {
  return outlineKinds(project).flatMap((kind) => [
    ...tangled(project, kind),
    ...steadiedOverNothing(project, kind),
    ...manyCorners(project, kind, seen),
  ]);
}

/** From a file that was changed by hand. */
function tangled(project: Project, { name }: OutlineKind): Finding[] {
  return project.sources.flatMap((source) =>
    source.frames.flatMap((frame): Finding[] => {
      if ((outlinesIn(frame.marks, name) ?? []).every(isSimple)) return [];
      const ref = frameRef(source, frame);
      return [
        {
          code: "outline-crosses",
          severity: "warning",
          where: frameName(source, frame),
          message: t("Its {name} crosses or touches itself, so a game may confuse its inside and outside.", { name }),
          place: { stop: "frames", frame: ref },
          mend: { label: t("Trace it again"), apply: (current) => setOutlines(current, frameName(source, frame), [ref], name, ref, null) },
        },
      ];
    }),
  );
}

/** What it was to be steadied over was removed. */
function steadiedOverNothing({ clips, actions }: Project, { name, trace }: OutlineKind): Finding[] {
  return (trace?.steady ?? []).flatMap(({ of }): Finding[] => {
    if (clips.some((clip) => clip.name === of) || actions.some((action) => action.name === of)) return [];
    return [
      {
        code: "steady-gone",
        severity: "note",
        where: t("outline {name}", { name }),
        message: t("Its frames of {of} should share one outline, but no clip or action has that name any more, so each has its own.", {
          of,
        }),
        place: { stop: "marks", clip: (clips[0]?.name ?? "") as Clip["name"], mark: name },
        mend: { label: t("Forget it"), apply: (current) => steadyOutline(current, name, of, null) },
      },
    ];
  });
}

function manyCorners(project: Project, { name, trace }: OutlineKind, seen: SeenOutlines): Finding[] {
  if (!trace) return [];
  const over = [...seen].flatMap(([ref, kinds]) => ((kinds[name]?.over ?? 0) > 0 ? [[ref, kinds[name]?.over ?? 0] as const] : []));
  const [first] = over;
  if (!first) return [];
  const most = Math.max(...over.map(([, by]) => by));
  const found = findFrame(project, first[0]);
  const looser = Math.min(64, Math.max(1, trace.withinPx * 2));
  return [
    {
      code: "many-corners",
      severity: "note",
      where: t("outline {name}", { name }),
      message: t("On {frames} it has up to {corners} more than {most}, to stay within {withinPx} px; first on {first}.", {
        frames: counted(over.length, "frame"),
        corners: counted(most, "corner"),
        most: trace.corners,
        withinPx: trace.withinPx,
        first: found ? frameName(found.source, found.frame) : first[0],
      }),
      place: { stop: "frames", frame: first[0] },
      mend: { label: t("Stay within {looser} px instead", { looser }), apply: (current) => setTrace(current, name, { withinPx: looser }) },
      otherMends: [
        {
          label: t("Allow {corners} corners", { corners: trace.corners + most }),
          apply: (current) => setTrace(current, name, { corners: trace.corners + most }),
        },
      ],
    },
  ];
}
