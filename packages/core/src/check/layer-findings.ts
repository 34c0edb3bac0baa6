/** Findings about layers with one name that sources blend, order or spell differently: a delivery has one layer for each name. */
import { layersOf } from "../delivery-plan";
import { blendLayer, moveLayer, renameLayer } from "../edit";
import { MOST_LAYERS, type Project, type SourceId, sourceById, unreachable } from "../model";
import { inLanguage, t } from "../words";
import type { Finding, Mend } from "./finding";

export function layersThatDisagree({ sources }: Project): Finding[] {
  const { disagree } = layersOf(sources);
  if (!disagree) return [];
  const { kind, layer, first, other } = disagree;
  const name = t('layer "{name}"', { name: layer.name });
  const own = other.layers?.find((each) => each.name.toLowerCase() === layer.name.toLowerCase()) ?? layer;
  const told = (message: string, mend?: Mend): Finding[] => [
    {
      ...{ code: "layers-disagree", severity: "error", where: name, message },
      place: { stop: "sources", source: other.id },
      ...(mend ? { mend } : {}),
    },
  ];
  switch (kind) {
    case "blend":
      return told(
        t("It is {how} in {name} and {otherwise} in {other}; a game can draw it only one way.", {
          how: inLanguage(IN_WORDS[layer.blend]),
          name: first.name,
          otherwise: inLanguage(IN_WORDS[own.blend]),
          other: other.name,
        }),
        {
          label: inLanguage(LABELS[layer.blend]),
          apply: (current) => blendLayer(current, layer.name, layer.blend),
        },
      );
    case "spelling":
      return told(
        t("It is called {name} in {other}; some systems do not distinguish files with these names.", { name: own.name, other: other.name }),
        {
          label: t("Call both {name}", { name: layer.name }),
          apply: (current) => renameLayer(current, own.name, layer.name),
        },
      );
    case "order":
      return told(
        t("It lies above another layer in {name} and below it in {other}; a game can draw layers only in one order.", {
          name: first.name,
          other: other.name,
        }),
        {
          label: t("Order those of {name} the same way", { name: other.name }),
          apply: (current) => orderedAlike(current, first.id, other.id),
        },
      );
    default:
      return unreachable(kind);
  }
}

/** The layers that both sources have, in the order of the first. */
function orderedAlike(project: Project, first: SourceId, other: SourceId): Project {
  const { layers = [] } = sourceById(project, first);
  const known = (sourceById(project, other).layers ?? []).filter(({ name }) => layers.some((each) => each.name === name));
  const wanted = layers.filter(({ name }) => known.some((each) => each.name === name));
  return wanted.reduce((next, { name }) => moveLayer(next, other, name, MOST_LAYERS), project);
}

const IN_WORDS = { normal: "painted over", add: "added", multiply: "multiplied" } as const;
const LABELS = { normal: "Paint it in both", add: "Add it in both", multiply: "Multiply it in both" } as const;
