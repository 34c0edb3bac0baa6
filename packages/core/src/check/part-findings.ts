/**
 * Findings about parts: missing names, steps without their point, a guest that ends early, circular attachment, a point or angle that
 * jumps.
 */
import { fillPoint, removePart, setClipRules } from "../edit";
import { hostClips, pointIn, pointPath } from "../marks";
import { type Clip, type ClipName, findFrame, type Part, type Project } from "../model";
import { timelineOf } from "../playback";
import { t } from "../words";
import { type Finding, namingSteps, type Place, sentence } from "./finding";

/** Cost: O(parts × steps of their hosts). */
export function partFindings(project: Project): Finding[] {
  const { parts = [] } = project;
  return parts.flatMap((part) => {
    if (goneOf(project, part).length > 0) return [];
    return [
      ...hostClips(project, part.host).flatMap((clip) => [
        ...withoutPoint(project, part, clip),
        ...jumping(project, part, clip),
        ...askew(project, part, clip),
      ]),
      ...guestThatEnds(project, part),
    ];
  });
}

/** Reports parts that cannot be drawn: with missing names, or attached to each other in a circle. */
export function brokenParts(project: Project): Finding[] {
  const { parts = [] } = project;
  return [...parts.flatMap((part) => goneOf(project, part)), ...circles(project, parts)];
}

function where({ name }: Part): string {
  return t('part "{name}"', { name });
}

function takeOff({ name }: Part): Finding["mend"] {
  return { label: t("Remove the part"), apply: (project) => removePart(project, name) };
}

function placeOf(project: Project, part: Part): Place {
  const [clip] = hostClips(project, part.host);
  return clip ? { stop: "marks", clip: clip.name, mark: part.at } : { stop: "sources" };
}

function goneOf(project: Project, part: Part): Finding[] {
  const plays = new Set<string>([...project.actions, ...project.clips].map(({ name }) => name));
  const points = new Set<string>(project.marks.flatMap(({ shape, name }) => (shape === "point" ? [name] : [])));
  const missing = [
    ...[part.host, part.guest].filter((each) => !plays.has(each)).map((each) => t("the movement {each}", { each })),
    ...[part.at, part.by]
      .filter((each) => each !== undefined && !points.has(each))
      .map((each) => t("the point {each}", { each: each ?? "" })),
  ];
  if (missing.length === 0) return [];
  return [
    {
      ...{ code: "part-gone", severity: "error", where: where(part) },
      message:
        missing.length === 1
          ? t("It is attached by {missing}, which is gone.", { missing: missing.join(` ${t("and")} `) })
          : t("It is attached by {missing}, which are gone.", { missing: missing.join(` ${t("and")} `) }),
      place: placeOf(project, part),
      ...withMend(takeOff(part)),
    },
  ];
}

function withMend(mend: Finding["mend"]): Pick<Finding, "mend"> {
  return mend ? { mend } : {};
}

/** Whether the guest of one may be shown where the other hangs. */
function leadsTo(project: Project, from: Part, to: Part): boolean {
  const shown = new Set<string>(hostClips(project, from.guest).map(({ name }) => name));
  return hostClips(project, to.host).some(({ name }) => shown.has(name));
}

function circles(project: Project, parts: readonly Part[]): Finding[] {
  const inCircle = (part: Part): boolean => {
    const seen = new Set<Part>();
    const next = [part];
    for (let each = next.pop(); each; each = next.pop())
      for (const other of parts) {
        if (!leadsTo(project, each, other)) continue;
        if (other === part) return true;
        if (!seen.has(other)) next.push(other);
        seen.add(other);
      }
    return false;
  };
  return parts.filter(inCircle).map((part) => ({
    ...{ code: "part-circle", severity: "error", where: where(part) },
    message: t("It is attached to itself in a circle: its guest leads back to its host."),
    place: placeOf(project, part),
    ...withMend(takeOff(part)),
  }));
}

function withoutPoint(project: Project, part: Part, clip: Clip): Finding[] {
  const at = pointPath(project, clip, part.at);
  const steps = at.flatMap((each, k) => (each || clip.steps[k]?.parts?.[part.name]?.hidden ? [] : [k]));
  if (steps.length === 0) return [];
  return [
    {
      ...{ code: "part-no-point", severity: "warning", where: where(part) },
      ...namingSteps((named) =>
        sentence(
          steps.length === 1
            ? t("{steps} of {name} has no {at}, so it is not drawn there.", { steps: named(steps), name: clip.name, at: part.at })
            : t("{steps} of {name} have no {at}, so it is not drawn there.", { steps: named(steps), name: clip.name, at: part.at }),
        ),
      ),
      place: { stop: "marks", clip: clip.name, mark: part.at, steps },
      ...(at.some((each) => each !== null)
        ? {
            mend: {
              label: t("Interpolate {at}", { at: part.at }),
              apply: (current: Project) => fillPoint(current, clip.name, part.at),
            },
          }
        : {}),
    },
  ];
}

/** Reports a guest that ends or disappears while its host continues. */
function guestThatEnds(project: Project, part: Part): Finding[] {
  const hosts = hostClips(project, part.host).filter(({ steps }) => steps.length > 0);
  return hostClips(project, part.guest).flatMap((guest): Finding[] => {
    if (guest.steps.length === 0) return [];
    const end = timelineOf(guest).end;
    const outlasts = hosts.find((host) => timelineOf(host).end > end);
    if (!outlasts) return [];
    return [
      {
        ...{ code: "part-ends", severity: "warning", where: where(part) },
        message:
          guest.after === "hide"
            ? t("Its guest {name} ends and disappears, and its host {outlasts} goes on.", { name: guest.name, outlasts: outlasts.name })
            : t("Its guest {name} ends and holds still, and its host {outlasts} goes on.", { name: guest.name, outlasts: outlasts.name }),
        place: { stop: "clips", clip: guest.name },
        mend: {
          label: t("Let {name} loop", { name: guest.name }),
          apply: (current) => setClipRules(current, guest.name as ClipName, { playback: "loop", times: 0 }),
        },
      },
    ];
  });
}

/** A movement of the point between two steps is a jump if it is beyond this multiple of the usual one, and beyond this many px. */
const JUMP = 4;
const LEAST_JUMP = 6;

function jumping(project: Project, part: Part, clip: Clip): Finding[] {
  const at = pointPath(project, clip, part.at);
  const ways = at.flatMap((each, k) => {
    const next = at[k + 1];
    return each && next ? [{ step: k + 1, way: Math.hypot(next.x - each.x, next.y - each.y) }] : [];
  });
  if (ways.length < 3) return [];
  const usual = ways.map(({ way }) => way).toSorted((a, b) => a - b)[ways.length >> 1] as number;
  const jumps = ways.filter(({ way }) => way > LEAST_JUMP && way > JUMP * usual);
  if (jumps.length === 0 || jumps.length > ways.length / 3) return [];
  const steps = jumps.map(({ step }) => step);
  return [
    {
      ...{ code: "part-jumps", severity: "note", where: where(part) },
      ...namingSteps((named) =>
        t("Its point {at} jumps by {most} px at {steps} of {name}; elsewhere it moves by {usual}.", {
          at: part.at,
          most: Math.round(Math.max(...jumps.map(({ way }) => way))),
          steps: named(steps),
          name: clip.name,
          usual: Math.round(usual),
        }),
      ),
      place: { stop: "marks", clip: clip.name, mark: part.at, steps },
    },
  ];
}

/** Angles that only a game turns by: pictures are turned by quarters. */
function askew(project: Project, part: Part, clip: Clip): Finding[] {
  const angles = clip.steps.map(({ frame }) => pointIn(findFrame(project, frame)?.frame.marks, part.at)?.angle);
  const own = new Set(
    hostClips(project, part.guest).flatMap(({ steps }) =>
      steps.map(({ frame }) => {
        const marks = findFrame(project, frame)?.frame.marks;
        return (part.by === undefined ? undefined : pointIn(marks, part.by)?.angle) ?? 0;
      }),
    ),
  );
  const steps = angles.flatMap((angle, k) =>
    angle !== undefined && !clip.steps[k]?.parts?.[part.name]?.hidden && [...own].some((each) => (angle - each) % 90 !== 0) ? [k] : [],
  );
  if (steps.length === 0) return [];
  return [
    {
      ...{ code: "part-turns", severity: "note", where: where(part) },
      ...namingSteps((named) =>
        t(
          "At {steps} of {name} it is rotated by an angle other than 90°. The game rotates it exactly; here, and in films and baked frames, it is rotated to the nearest 90°, so that its pixels stay whole.",
          { steps: named(steps), name: clip.name },
        ),
      ),
      place: { stop: "marks", clip: clip.name, mark: part.at, steps },
    },
  ];
}
