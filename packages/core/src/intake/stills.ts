/** Proposals for numbered stills: one series, which is a clip, or separate sheets. */
import { USUAL_STEP } from "../model";
import type { Series } from "../series";
import { t } from "../words";
import { fileOf, stillOf, type TakenItem, type TakenPicture } from "./drop-contents";
import { type Choices, clearingFor, type Proposal, type ProposedClip, shortList, USUAL_CHOICES, wholeFrame } from "./proposal";

export function seriesProposal({ members, missing, doubles }: Series<TakenItem>, name: string): Proposal {
  const taken = members.map(({ file }) => stillOf(file));
  const numbers = members.map(({ number }) => number);
  const usual = usualSize(taken);
  const odd = members.filter(({ file }) => sizeOf(stillOf(file)) !== usual);
  const ground = taken.every((each) => each.ground) ? (taken[0]?.ground ?? null) : null;
  const id = members.map(({ file }) => file.path).join("\n");
  const clip = (choices: Choices): ProposedClip => ({
    ...{ ref: id, name, playback: "loop", times: 0 },
    steps: members.map((_, frame) => ({ frame, duration: USUAL_STEP })),
    shows: taken.map((each) => wholeFrame(each, clearingFor(ground, choices))),
  });
  return {
    id,
    name,
    what:
      odd.length === 0
        ? t("A series of {taken} pictures, {number} to {at}, each {usual} px", {
            taken: taken.length,
            number: numbers[0] ?? "",
            at: numbers.at(-1) ?? "",
            usual,
          })
        : t("A series of {taken} pictures, {number} to {at}, most {usual} px", {
            taken: taken.length,
            number: numbers[0] ?? "",
            at: numbers.at(-1) ?? "",
            usual,
          }),
    notes: [
      ...(missing.length > 0
        ? [
            missing.length === 1
              ? t("Number {shortList} is missing.", { shortList: shortList(missing) })
              : t("Numbers {shortList} are missing.", { shortList: shortList(missing) }),
          ]
        : []),
      ...(doubles.length > 0
        ? [t("Skipped, since their numbers are taken: {shortList}.", { shortList: shortList(doubles.map(({ path }) => fileOf(path))) })]
        : []),
      ...(odd.length > 0
        ? [
            t("Different size: {shortList}.", {
              shortList: shortList(odd.map(({ file }) => `${fileOf(file.path)} (${sizeOf(stillOf(file))})`)),
            }),
          ]
        : []),
    ],
    shows: taken,
    kind: "series",
    parting: { whole: t("One series"), apart: t("Separate sheets") },
    ground,
    usual: USUAL_CHOICES,
    clips: (choices) => (choices.apart ? [] : [clip(choices)]),
    arrivals: (choices) =>
      choices.apart
        ? members.map(({ file }) => ({
            name: fileOf(file.path),
            pictures: [pictureOf(stillOf(file))],
            ...clearingFor(stillOf(file).ground, choices),
          }))
        : [
            {
              name,
              pictures: taken.map((each, k) => ({ ...pictureOf(each), number: numbers[k] as number })),
              coverages: taken.map(({ coverage }) => coverage),
              ...clearingFor(ground, choices),
              clips: choices.clips ? [clip(choices)] : [],
            },
          ],
  };
}

function pictureOf({ sha256, width, height }: TakenPicture) {
  return { sha256, width, height };
}

function sizeOf({ width, height }: TakenPicture): string {
  return `${width} × ${height}`;
}

/** The size that most of them have. */
function usualSize(taken: readonly TakenPicture[]): string {
  const sizes = new Map<string, number>();
  for (const each of taken) sizes.set(sizeOf(each), (sizes.get(sizeOf(each)) ?? 0) + 1);
  return [...sizes].sort((a, b) => b[1] - a[1])[0]?.[0] ?? "";
}
