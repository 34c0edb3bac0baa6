/** Findings about frame names that a delivery's pattern produces. */

import { type ChosenFrames, framesNamed, paddedPattern } from "../delivery-plan";
import { renameSource, setDelivery } from "../edit";
import { type Delivery, freeName, isFitName, naturalOrder, OWN_NAMES, type Project, shortened } from "../model";
import { t } from "../words";
import { type Finding, whereOfDelivery } from "./finding";

/** A pattern that is not specific enough: a game could not distinguish the frames. Frames' own names are checked elsewhere. */
export function sharedNames(project: Project, index: number, { names }: ChosenFrames): Finding[] {
  const { frameNames } = project.deliveries[index] as Delivery;
  const distinct = new Set(names).size;
  if (frameNames === OWN_NAMES || distinct === names.length) return [];
  const told = `${frameNames}-${paddedPattern("{n}", names.length)}`;
  return [
    {
      code: "same-frame-name",
      severity: "error",
      where: whereOfDelivery(project, index),
      message:
        distinct === 1
          ? t("Called {frameNames}, {names} frames have only {distinct} name; a game could not distinguish them.", {
              frameNames,
              names: names.length,
              distinct,
            })
          : t("Called {frameNames}, {names} frames have only {distinct} names; a game could not distinguish them.", {
              frameNames,
              names: names.length,
              distinct,
            }),
      place: { stop: "ship", delivery: index },
      delivery: index,
      mend: { label: t("Use names like {told}", { told }), apply: (current) => setDelivery(current, index, { frameNames: told }) },
    },
  ];
}

/** Names that an atlas file cannot have: a long name of a source with a number after it, or what a pattern gives. */
export function unfitNames(project: Project, index: number, { frames, names }: ChosenFrames): Finding[] {
  const first = names.findIndex((name) => !isFitName(name));
  if (first < 0) return [];
  const [frame, name] = [frames[first] as ChosenFrames["frames"][number], names[first] as string];
  const isOwn = (project.deliveries[index] as Delivery).frameNames === OWN_NAMES;
  const { id, name: source } = frame.source;
  const shorter = shortened(source, SHORT_NAME).trimEnd();
  return [
    {
      code: "unfit-name",
      severity: "error",
      where: whereOfDelivery(project, index),
      message: isOwn
        ? t('A frame of "{source}" would be called by {length} characters in the game, and 200 are possible. Shorten the source\'s name.', {
            source,
            length: name.length,
          })
        : name.length > 200
          ? t("A frame would be called by {length} characters in the game, and 200 are possible. Shorten the pattern of frame names.", {
              length: name.length,
            })
          : t("The pattern of frame names leaves a frame without a name that a file can hold. Change the pattern."),
      place: isOwn ? { stop: "sources", source: id } : { stop: "ship", delivery: index },
      delivery: index,
      mend: isOwn
        ? {
            label: t("Call it {name}", { name: shorter }),
            apply: (current) => renameSource(current, id, freeName(shorter, new Set(current.sources.map((each) => each.name)))),
          }
        : { label: t("Use their own names"), apply: (current) => setDelivery(current, index, { frameNames: OWN_NAMES }) },
    },
  ];
}

/** UTF-16 units: leaves room for anything that is added to it. */
const SHORT_NAME = 120;

/** Numbers without leading zeros: code that looks for `walk1` by its beginning finds `walk10` as well. */
export function beginnings(project: Project, index: number, { frames, names, project: taken }: ChosenFrames): Finding[] {
  const { frameNames, counting } = project.deliveries[index] as Delivery;
  if (frameNames === OWN_NAMES) return [];
  const traps = namesThatBeginOthers(names);
  const [first] = traps;
  if (!first) return [];
  const padded = paddedPattern(frameNames, highest(names));
  if (padded === frameNames || namesThatBeginOthers(framesNamed(taken, frames, padded, counting.from)).length >= traps.length) return [];
  return [
    {
      code: "frame-name-begins-another",
      severity: "note",
      where: whereOfDelivery(project, index),
      message:
        traps.length > 1
          ? t("The name {short} begins {long}, and so with {traps} more. Code that matches names by prefix finds both.", {
              short: first.short,
              long: first.long,
              traps: traps.length - 1,
            })
          : t("The name {short} begins {long}. Code that matches names by prefix finds both.", { short: first.short, long: first.long }),
      place: { stop: "ship", delivery: index },
      delivery: index,
      mend: { label: t("Use names like {padded}", { padded }), apply: (current) => setDelivery(current, index, { frameNames: padded }) },
    },
  ];
}

/** Pairs of a name and the first other one that it begins. */
function namesThatBeginOthers(names: readonly string[]): { short: string; long: string }[] {
  const sorted = names.toSorted();
  return sorted
    .flatMap((short, k) => {
      const long = sorted[k + 1];
      return long !== undefined && long !== short && long.startsWith(short) ? [{ short, long }] : [];
    })
    .sort((a, b) => naturalOrder(a.short, b.short));
}

/** The largest number in any of the names. */
function highest(names: readonly string[]): number {
  return names.reduce((most, name) => Math.max(most, ...(name.match(/\d{1,9}/gu) ?? []).map(Number)), 0);
}
