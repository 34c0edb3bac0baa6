/** Proposals for animations: they become clips with their own times. */
import type { StoredPicture } from "../edit";
import { LONGEST_STEP, microsFromMs } from "../model";
import { t } from "../words";
import type { TakenItem, TakenPicture } from "./drop-contents";
import { fitDuration } from "./frames-and-clips";
import { type Choices, clearingFor, type Proposal, type ProposedClip, type ShownPicture, USUAL_CHOICES, wholeFrame } from "./proposal";
import { WHOLE } from "./sheet";

export function animationProposal({ path, art }: TakenItem, name: string): Proposal {
  if (art.kind !== "animation") throw new Error("Not an animation.");
  const { pictures: taken, plays, broken } = art;
  const total = taken.reduce((sum, { ms }) => sum + ms, 0);
  const first = taken[0] as TakenPicture;
  const ground = taken.every((each) => each.ground) ? first.ground : null;
  const clip = (choices: Choices): ProposedClip => ({
    ...{ ref: path, name, playback: plays === 1 ? "once" : "loop", times: plays },
    steps: taken.map(({ ms }, frame) => ({ frame, duration: fitDuration(ms) })),
    shows: taken.map((each) => wholeFrame(each, clearingFor(ground, choices))),
  });
  return {
    id: path,
    name,
    what: t("An animation of {taken} pictures, {width} × {height} px, {total} ms a loop", {
      taken: taken.length,
      width: first.width,
      height: first.height,
      total: written(total),
    }),
    notes: [
      ...broken.map(({ index, why }) => t("Picture {index} is broken and left out. {why}", { index, why })),
      ...(taken.some(({ ms }) => microsFromMs(ms) > LONGEST_STEP) ? [t("Steps of more than an hour are taken as an hour long.")] : []),
    ],
    shows: taken,
    kind: "animation",
    ground,
    usual: USUAL_CHOICES,
    clips: (choices) => [clip(choices)],
    arrivals: (choices) => [
      {
        name,
        pictures: timedPicturesOf(taken),
        coverages: taken.map(({ coverage }) => coverage),
        ...clearingFor(ground, choices),
        ...(taken.length === 1 ? { cut: WHOLE } : {}),
        clips: choices.clips ? [clip(choices)] : [],
      },
    ],
  };
}

/** An animation's pictures as sources have them: one that moves with the times of its file. */
export function timedPicturesOf(taken: readonly (ShownPicture & { readonly ms: number })[]): StoredPicture[] {
  return taken.map(({ sha256, width, height, ms }) => ({
    ...{ sha256, width, height },
    ...(taken.length > 1 ? { duration: fitDuration(ms) } : {}),
  }));
}

function written(ms: number): string {
  return String(Math.round(ms * 1000) / 1000);
}
