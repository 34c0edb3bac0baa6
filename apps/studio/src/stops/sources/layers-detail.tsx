"use client";

import { lookOf } from "@caravan/core/art";
import { blendLayer, moveLayer, renameLayer } from "@caravan/core/edit";
import { type Blend, type Layer, MOST_LAYERS, type Source } from "@caravan/core/model";
import { ArrowDown, ArrowUp, Plus, X } from "lucide-react";
import { ART_FILES } from "../../project/import-later";
import { clearLayer, layOver, replaceLayer, takeOff } from "../../project/layers";
import { edit } from "../../project/open-project";
import { usePicture } from "../../project/pictures";
import { Button, IconButton } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { chooseFiles } from "../../ui/files";
import { inBackground } from "../../ui/in-background";
import { sayUnlessDone } from "../../ui/notices";
import { Select } from "../../ui/select";
import { TextField } from "../../ui/text-field";
import { t } from "../../ui/words";

const BLENDS: readonly (readonly [Blend, string])[] = [
  ["normal", t("Painted over")],
  ["add", t("Added as light")],
  ["multiply", t("Multiplied as shade")],
];

/** What lies over a source's pictures, the topmost first: cut with them, delivered as pictures of their own. */
export function LayersDetail({ source }: { source: Source }) {
  const { layers = [] } = source;
  const add = async () => {
    const files = await chooseFiles(ART_FILES, true);
    if (files.length > 0) await layOver(source, files);
  };
  return (
    <Detail title={t("Layers")} aside={layers.length > 0 ? t("{count} with the art itself", { count: layers.length + 1 }) : undefined}>
      {layers.length === 0 && (
        <p className="mb-2 text-muted">{t("Light, shade or clothing in separate files of the same size, drawn over this one.")}</p>
      )}
      <ul aria-label={t("Layers, the topmost first")} className="flex flex-col gap-1.5">
        {layers.toReversed().map((layer) => (
          <Row key={layer.name} source={source} layer={layer} />
        ))}
      </ul>
      {layers.length < MOST_LAYERS && (
        <Button onClick={() => inBackground(add())}>
          <Plus size={14} /> {t("Add a layer from a file …")}
        </Button>
      )}
    </Detail>
  );
}

function Row({ source, layer }: { source: Source; layer: Layer }) {
  const { layers = [] } = source;
  const { name, blend, clearing } = layer;
  const at = layers.indexOf(layer);
  const [first] = layer.pictures;
  const ground = usePicture(first && lookOf({}, first))?.ground?.clearing ?? null;
  const change = (error: Error | null) => sayUnlessDone(error);
  const replace = async () => {
    const files = await chooseFiles(ART_FILES, true);
    if (files.length > 0) await replaceLayer(source, layer, files);
  };
  return (
    <li className="rounded-box border border-line p-1.5">
      <div className="flex items-center gap-1">
        <TextField
          label={t("Name of the layer {name}", { name })}
          value={name}
          onChange={(next) => edit(renameLayer, name, next)?.message}
          className="min-w-0 grow font-semibold"
        />
        <IconButton
          label={t("{name} up", { name })}
          look="quiet"
          disabled={at === layers.length - 1}
          onClick={() => change(edit(moveLayer, source.id, name, 1))}
        >
          <ArrowUp size={14} />
        </IconButton>
        <IconButton
          label={t("{name} down", { name })}
          look="quiet"
          disabled={at === 0}
          onClick={() => change(edit(moveLayer, source.id, name, -1))}
        >
          <ArrowDown size={14} />
        </IconButton>
        <IconButton once label={t("Remove {name}", { name })} look="quiet" onClick={() => inBackground(takeOff(source, layer))}>
          <X size={14} />
        </IconButton>
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-1.5">
        <Select
          label={t("Blending of {name}", { name })}
          value={blend}
          options={BLENDS}
          onChange={(next) => change(edit(blendLayer, name, next))}
        />
        <Button onClick={() => inBackground(replace())}>{t("Replace …")}</Button>
        {clearing ? (
          <Button onClick={() => inBackground(clearLayer(source, layer, null))}>{t("Restore background")}</Button>
        ) : (
          ground && (
            <Button onClick={() => inBackground(clearLayer(source, layer, ground))}>
              {t("Clear its background")} {ground.colours[0]}
            </Button>
          )
        )}
      </div>
    </li>
  );
}
