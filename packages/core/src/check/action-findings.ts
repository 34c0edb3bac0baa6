/** Findings about actions: missing or mismatched facings, actions that show nothing, misleading names. */

import { mirrorMissing, removeAction, renameClip, setClipTotal, setStepDurations, setWays } from "../edit";
import { mirrorOf, nearestPresent, waysFor } from "../facing";
import {
  type Action,
  type Clip,
  type ClipName,
  clipsOfAction,
  counted,
  FACINGS_OF,
  type Facing,
  facingsPresent,
  freeName,
  naturalOrder,
  type Project,
} from "../model";
import { t } from "../words";
import type { Finding } from "./finding";

/** `edited` is the clip that a person changed last. Cost: O(facings of all actions + their steps). */
export function actionFindings(project: Project, edited: ClipName | null = null): Finding[] {
  const clips = new Map<string, Clip>(project.clips.map((clip) => [clip.name, clip]));
  return project.actions.flatMap((action) => {
    const present = facingsPresent(action);
    if (present.length === 0) return [emptyAction(action)];
    return [...namedAsClip(clips, action), ...missing(action, present), ...unlike(project, action, edited)];
  });
}

function finding(action: Action, rest: Pick<Finding, "code" | "severity" | "message" | "mend" | "otherMends">): Finding {
  return { where: t('action "{name}"', { name: action.name }), place: { stop: "clips", action: action.name }, ...rest };
}

/** Actions that show nothing at all. */
export function emptyActions({ actions }: Project): Finding[] {
  return actions.filter((action) => facingsPresent(action).length === 0).map(emptyAction);
}

function emptyAction(action: Action): Finding {
  return finding(action, {
    code: "empty-action",
    severity: "error",
    message: t("It has no clip in any facing, so a game could not play it. Give it clips or remove it."),
    mend: { label: t("Remove the action"), apply: (current) => removeAction(current, action.name) },
  });
}

/** A clip that is one of the action's own may be meant by its name; the game gets the action all the same. */
function namedAsClip(clips: ReadonlyMap<string, Clip>, action: Action): Finding[] {
  const clip = clips.get(action.name);
  if (!clip) return [];
  const facing = Object.entries(action.facings).find(([, petal]) => petal.clip === clip.name && !petal.mirror)?.[0];
  const name = freeName(`${clip.name}-${facing ?? "clip"}`, (wanted) => clips.has(wanted));
  return [
    finding(action, {
      code: "action-named-as-clip",
      severity: "note",
      message: t('A clip has the same name. A game that plays "{name}" gets the action, never the clip.', { name: action.name }),
      mend: { label: t("Rename the clip to {name}", { name }), apply: (current) => renameClip(current, clip.name, name) },
    }),
  ];
}

function missing(action: Action, present: readonly Facing[]): Finding[] {
  const absent = FACINGS_OF[action.ways].filter((facing) => !present.includes(facing));
  if (absent.length === 0) return [];
  const stand = absent.map((facing) => t("{facing} looks {shown}", { facing, shown: nearestPresent(facing, present) ?? "" })).join(", ");
  const mirrored = absent.filter((facing) => {
    const across = action.facings[mirrorOf(facing)];
    return across !== undefined && !across.mirror;
  });
  const fewer = waysFor(present);
  const mend =
    mirrored.length > 0
      ? {
          label: t("Mirror {mirrored}", { mirrored: mirrored.join(", ") }),
          apply: (current: Project) => mirrorMissing(current, action.name),
        }
      : fewer < action.ways
        ? {
            label: t("Make it {facings}", { facings: counted(fewer, "facing") }),
            apply: (current: Project) => setWays(current, action.name, fewer),
          }
        : undefined;
  return [
    finding(action, {
      code: "facing-missing",
      severity: "note",
      message: t("{facings} missing; until then {stand}.", { facings: counted(absent.length, "facing is", "facings are"), stand }),
      ...(mend ? { mend } : {}),
    }),
  ];
}

/** A figure that turns keeps its phase only if its clips last equally long, and its stride only if they step alike. */
function unlike(project: Project, action: Action, edited: ClipName | null): Finding[] {
  const clips = clipsOfAction(project, action).filter(({ steps }) => steps.length > 0);
  const usual = mostUsual(clips);
  // Someone who changed the times of one facing usually means them for all.
  const model = clips.find(({ name }) => name === edited) ?? usual;
  if (!model) return [];
  const others = clips.filter((clip) => rhythmOf(clip) !== rhythmOf(model));
  if (others.length === 0) return [];
  const counts = others.some(({ steps }) => steps.length !== model.steps.length);
  const names = others.map(({ name }) => name).join(", ");
  const same = others.filter(({ steps }) => steps.length === model.steps.length);
  const lengths = others.some((clip) => totalOf(clip) !== totalOf(model));
  const giving = (of: Clip) => ({
    label: t("Use the times of {name}", { name: of.name }),
    apply: (current: Project) =>
      timesOf(
        current,
        of,
        clips.filter((clip) => rhythmOf(clip) !== rhythmOf(of)),
      ),
  });
  const mend = giving(model);
  const otherMends = usual && rhythmOf(usual) !== rhythmOf(model) ? [giving(usual)] : [];
  return [
    finding(action, {
      code: "facings-differ",
      severity: "note",
      message: differingInWords(names, others.length === 1, counts ? "count" : lengths ? "length" : "rhythm", model.name),
      ...(same.length > 0 || lengths ? { mend, otherMends } : {}),
    }),
  ];
}

/** Clips with as many steps get exactly the times of `model`; others get its length. */
function timesOf(project: Project, model: Clip, clips: readonly Clip[]): Project {
  let next = project;
  for (const { name, steps } of clips) {
    if (steps.length !== model.steps.length) next = setClipTotal(next, name, totalOf(model));
    else for (const [k, { duration }] of model.steps.entries()) next = setStepDurations(next, name, [k], duration);
  }
  return next;
}

function mostUsual(clips: readonly Clip[]): Clip | null {
  const counts = new Map<string, { clip: Clip; count: number }>();
  for (const clip of clips) {
    const seen = counts.get(rhythmOf(clip));
    if (seen) seen.count++;
    else counts.set(rhythmOf(clip), { clip, count: 1 });
  }
  return (
    [...counts.values()].reduce(
      (best, each) => (best && best.count >= each.count ? best : each),
      null as { clip: Clip; count: number } | null,
    )?.clip ?? null
  );
}

function rhythmOf({ steps }: Clip): string {
  return steps.map(({ duration }) => duration).join();
}

function totalOf({ steps }: Clip): number {
  return steps.reduce((sum, { duration }) => sum + duration, 0);
}

/**
 * A game that looks clips up by name prefix also gets the wrong ones: `walk_s` matches `walk_se`. Facings of one action are looked up
 * through the action, so they are excluded; so are clips in other colours, whose names continue on purpose. Cost: O(n log n) and the pairs
 * found.
 */
export function nameFindings(project: Project): Finding[] {
  const names = project.clips.map(({ name }) => name).toSorted();
  const actionOf = new Map<ClipName, string>();
  for (const action of project.actions) for (const { clip } of Object.values(action.facings)) actionOf.set(clip, action.name);
  const variants = new Set(project.palettes?.flatMap(({ name, of }) => (of === undefined ? [] : [`-${name}`])));
  const taken = new Set<string>(names);
  const traps: Finding[] = [];
  for (const [k, short] of names.entries()) {
    const longer: ClipName[] = [];
    // Sorted by their characters, all names with one beginning follow it.
    for (let at = k + 1; names[at]?.startsWith(short); at++) {
      const long = names[at] as ClipName;
      if (variants.has(long.slice(short.length))) continue;
      if (actionOf.get(short) === undefined || actionOf.get(short) !== actionOf.get(long)) longer.push(long);
    }
    if (longer.length === 0) continue;
    const other = freeName(`${short}${/\d$/.test(short) ? "-" : ""}0`, taken);
    const listed = longer.toSorted(naturalOrder).slice(0, 3).join(", ");
    traps.push({
      code: "name-begins-another",
      severity: "note",
      where: t('clip "{short}"', { short }),
      message:
        longer.length > 3
          ? t("{longer} and {more} more begin with this name. Code that matches names by prefix finds both.", {
              longer: listed,
              more: longer.length - 3,
            })
          : longer.length === 1
            ? t("{longer} begins with this name. Code that matches names by prefix finds both.", { longer: listed })
            : t("{longer} begin with this name. Code that matches names by prefix finds both.", { longer: listed }),
      place: { stop: "clips", clip: short },
      mend: { label: t("Call it {other}", { other }), apply: (current) => renameClip(current, short, other) },
    });
  }
  return traps;
}

function differingInWords(names: string, one: boolean, by: "count" | "length" | "rhythm", other: string): string {
  const said = { names, other };
  switch (by) {
    case "count":
      return one
        ? t("{names} has a different number of steps than {other}, so turning shows as a jump.", said)
        : t("{names} have a different number of steps than {other}, so turning shows as a jump.", said);
    case "length":
      return one
        ? t("{names} has a different length than {other}, so turning shows as a jump.", said)
        : t("{names} have a different length than {other}, so turning shows as a jump.", said);
    case "rhythm":
      return one
        ? t("{names} has a different rhythm than {other}, so turning shows as a jump.", said)
        : t("{names} have a different rhythm than {other}, so turning shows as a jump.", said);
  }
}
