/**
 * Proposals for files that contain several pictures: animations become clips with their own times; layered files become one source or one
 * for each layer.
 */
import { counted, MOST_LAYERS, microsFromMs } from "../model";
import { t } from "../words";
import type { TakenItem, TakenPicture } from "./drop-contents";
import { newLayers } from "./layers";
import {
  type Choices,
  clearingFor,
  type Proposal,
  type ProposedClip,
  type ProposedLayer,
  shortList,
  USUAL_CHOICES,
  wholeFrame,
} from "./proposal";
import { WHOLE } from "./sheet";

export function animationProposal({ path, art }: TakenItem, name: string): Proposal {
  if (art.kind !== "animation") throw new Error("Not an animation.");
  const { pictures: taken, plays, broken } = art;
  const total = taken.reduce((sum, { ms }) => sum + ms, 0);
  const first = taken[0] as TakenPicture;
  const ground = taken.every((each) => each.ground) ? first.ground : null;
  const clip = (choices: Choices): ProposedClip => ({
    ...{ ref: path, name, playback: plays === 1 ? "once" : "loop", times: plays },
    steps: taken.map(({ ms }, frame) => ({ frame, duration: microsFromMs(ms) })),
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
    notes: broken.map(({ index, why }) => t("Picture {index} is broken and left out. {why}", { index, why })),
    shows: taken,
    kind: "animation",
    ground,
    usual: USUAL_CHOICES,
    clips: (choices) => [clip(choices)],
    arrivals: (choices) => [
      {
        name,
        pictures: picturesOf(taken),
        coverages: taken.map(({ coverage }) => coverage),
        ...clearingFor(ground, choices),
        ...(taken.length === 1 ? { cut: WHOLE } : {}),
        clips: choices.clips ? [clip(choices)] : [],
      },
    ],
  };
}

export function layersProposal({ path, art }: TakenItem, name: string): Proposal {
  if (art.kind !== "layers") throw new Error("Not layered.");
  const { layers: taken, apart, hidden, groups, unlike, damaged, unlikeMerged } = art;
  const first = taken[0] as TakenPicture;
  const listOf = (choices: Choices) => (choices.apart && apart ? apart : taken);
  const over = (list: typeof taken): ProposedLayer[] =>
    list.slice(1).map((each) => ({ name: each.name, blend: each.blend, pictures: [each] }));
  const fits = taken.length > 1 && taken.length <= MOST_LAYERS + 1;
  return {
    id: path,
    name,
    what: t("{layers} of {width} × {height} px: {shortList}", {
      layers: counted(taken.length, "layer"),
      width: first.width,
      height: first.height,
      shortList: shortList(taken.map((each) => each.name)),
    }),
    notes: [
      ...(hidden > 0 ? [t("{layers} left out.", { layers: counted(hidden, "hidden layer") })] : []),
      ...unlike.map((each) =>
        t("The layer {name} is blended by {blended}, which Caravan does not support: it is imported as painted over.", {
          name: each.name,
          blended: each.blended,
        }),
      ),
      ...damaged.map((each) => t("The layer {name} is damaged and left out. {why}", { name: each.name, why: each.why })),
      // Otherwise the notes above say why.
      ...(unlikeMerged && unlike.length + damaged.length === 0
        ? [
            t(
              "Composed of its layers, {pixels} look different from the merged picture in the file: its program blends them in another way. If they must look the same, export it as one picture.",
              {
                pixels: counted(unlikeMerged, "pixel"),
              },
            ),
          ]
        : []),
    ],
    shows: taken,
    kind: "layers",
    ground: null,
    usual: { ...USUAL_CHOICES, layers: fits },
    clips: () => [],
    ...(fits ? { layering: { whole: t("One source with its layers"), apart: t("One source per layer") }, layers: over(taken) } : {}),
    ...(apart
      ? {
          parting: {
            whole: t("{groups} as one", { groups: counted(groups, "group") }),
            apart: t("{apart} layers apart", { apart: apart.length }),
          },
        }
      : {}),
    arrivals: (choices) => {
      const list = listOf(choices);
      if (!choices.layers || list.length < 2 || list.length > MOST_LAYERS + 1)
        return list.map((each) => ({ name: `${name}-${each.name}`, pictures: picturesOf([each]) }));
      return [{ name, pictures: picturesOf([list[0] as TakenPicture]), layers: newLayers(over(list), choices) }];
    },
  };
}

function picturesOf(taken: readonly TakenPicture[]) {
  return taken.map(({ sha256, width, height }) => ({ sha256, width, height }));
}

function written(ms: number): string {
  return String(Math.round(ms * 1000) / 1000);
}
