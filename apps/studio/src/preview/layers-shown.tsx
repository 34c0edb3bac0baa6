"use client";

import { Eye, EyeOff } from "lucide-react";
import { useProject } from "../project/open-project";
import { Button, IconButton } from "../ui/button";
import { t } from "../ui/words";
import { layersToSee, showAllLayers, showLayer, soloLayer, useHiddenLayers } from "./hidden-layers";

/** The displayed name of a layer. */
function layerInWords(name: string | null): string {
  return name ?? t("the art itself");
}

/** Shows and hides layers, or looks at one alone. Nothing where the project has none. */
export function LayersShown() {
  const names = useProject((project) => layersToSee(project).join("\n"));
  const sources = useProject((project) => project.sources);
  const hidden = useHiddenLayers((state) => state.hidden);
  if (names === "") return null;
  const all = layersToSee({ sources });
  return (
    <ul className="grid gap-0.5">
      {all.map((name) => {
        const word = layerInWords(name);
        const shown = !hidden.has(name);
        return (
          <li key={name ?? ""} className="flex items-center gap-1">
            <IconButton label={`${shown ? t("Hide") : t("Show")} ${word}`} look="quiet" onClick={() => showLayer(name, !shown)}>
              {shown ? <Eye size={14} /> : <EyeOff size={14} />}
            </IconButton>
            <span className={`w-28 truncate ${shown ? "" : "text-muted line-through"}`}>{word}</span>
            <Button look="quiet" aria-label={t("Only {word}", { word })} onClick={() => soloLayer(name, all)}>
              {t("Only this")}
            </Button>
          </li>
        );
      })}
    </ul>
  );
}

/** A word over the player while something of what it plays is hidden. */
export function HiddenLayersWord() {
  const hidden = useHiddenLayers((state) => state.hidden);
  if (hidden.size === 0) return null;
  return (
    <p className="absolute bottom-2 left-2 flex items-center gap-2 rounded-box border border-line bg-raised px-2 py-0.5 text-small">
      <EyeOff size={12} aria-hidden /> {t("without {what}", { what: [...hidden].map(layerInWords).join(", ") })}
      <Button look="quiet" onClick={showAllLayers}>
        {t("Show all")}
      </Button>
    </p>
  );
}
