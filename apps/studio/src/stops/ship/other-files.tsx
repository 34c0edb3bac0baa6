"use client";

import type { Delivery } from "@caravan/core/model";
import { useProject } from "../../project/open-project";
import { Choice } from "../../ui/choice";
import { Detail } from "../../ui/detail";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { useDelivery } from "./chosen-delivery";
import { useLast } from "./last-setting";

type Tiles = NonNullable<Delivery["data"]["tiles"]>;

const USUAL_TILES: Tiles = { tile: { w: 8, h: 8 }, flips: true };

/** Chooses the files beside the pictures, and how they count. */
export function Beside() {
  const { delivery, set } = useDelivery();
  const { data, counting, kind } = delivery;
  const behaviours = useProject((project) => project.behaviours?.length ?? 0);
  const palettes = useProject((project) => project.palettes?.length ?? 0);
  const lastTiles = useLast("tiles", data.tiles, USUAL_TILES);
  const contact = (
    <Tick label={t("contact sheet for people")} checked={data.contact} onChange={(next) => set({ data: { contact: next } })} />
  );
  if (kind === "films") return <Detail title={t("Beside the films")}>{contact}</Detail>;
  return (
    <Detail title={t("Beside the pictures")}>
      <div className="flex flex-col items-start gap-0.5">
        <Tick label={t("atlas file")} checked={data.atlas} onChange={(atlas) => set({ data: { atlas } })} />
        {data.atlas && (
          <Tick
            label={t("compact JSON, for downloads")}
            checked={data.compact === true}
            onChange={(compact) => set({ data: { compact: compact ? true : undefined } })}
          />
        )}
        {data.atlas && (
          <Tick
            label={t("durations also in ticks")}
            checked={data.ticks === true}
            onChange={(ticks) => set({ data: { ticks: ticks ? true : undefined } })}
          />
        )}
        <Tick label={t("table of frames")} checked={data.frames} onChange={(frames) => set({ data: { frames } })} />
        <Tick label={t("table of times")} checked={data.times} onChange={(times) => set({ data: { times } })} />
        {behaviours > 0 && (
          <Tick label={t("tables of the rules")} checked={data.rules === true} onChange={(rules) => set({ data: { rules } })} />
        )}
        <Tick
          label={t("tiles and their positions")}
          checked={data.tiles !== undefined}
          onChange={(wanted) => set({ data: { tiles: wanted ? lastTiles() : undefined } })}
        />
        {data.tiles && <TileFields tiles={data.tiles} hasPalettes={palettes > 0} onChange={(tiles) => set({ data: { tiles } })} />}
        {palettes > 0 && (
          <Tick
            label={t("palette indexes, to recolour in the game")}
            checked={data.places === true}
            onChange={(wanted) => set({ data: { places: wanted ? true : undefined } })}
          />
        )}
        {contact}
        <Tick
          label={t("page to hand round, which plays everything")}
          checked={data.page === true}
          onChange={(wanted) => set({ data: { page: wanted ? true : undefined } })}
        />
        {(data.times || (data.atlas && data.ticks)) && (
          <FieldBox label={t("in ticks of")}>
            <NumberField
              label={t("Ticks a second")}
              value={data.ticksPerSecond}
              least={1}
              most={1_000_000}
              onChange={(ticksPerSecond) => set({ data: { ticksPerSecond } })}
            />
            <span className="text-small text-muted">{t("a second")}</span>
          </FieldBox>
        )}
        <p className="mt-1.5 text-small text-muted">{t("as a module")}</p>
        <Choice
          label={t("As a module")}
          value={data.module}
          options={[
            ["none", t("None")],
            ["typed", "TypeScript"],
            ["plain", "JavaScript"],
          ]}
          onChange={(module) => set({ data: { module } })}
        />
        {(data.frames || data.times || delivery.frameNames !== "{name}") && (
          <>
            <p className="mt-1.5 text-small text-muted">{t("numbers in tables and names")}</p>
            <div className="flex flex-wrap gap-1.5">
              <Choice
                label={t("Count from")}
                value={String(counting.from)}
                options={[
                  ["0", t("from 0")],
                  ["1", t("from 1")],
                ]}
                onChange={(from) => set({ counting: { from: from === "1" ? 1 : 0 } })}
              />
              <Choice
                label={t("Origins in")}
                value={counting.origin}
                options={[
                  ["pixels", t("pixels")],
                  ["fraction", t("fractions")],
                ]}
                onChange={(origin) => set({ counting: { origin } })}
              />
              <Choice
                label={t("Origins count")}
                value={counting.y}
                options={[
                  ["down", t("y down")],
                  ["up", t("y up")],
                ]}
                onChange={(y) => set({ counting: { y } })}
              />
            </div>
          </>
        )}
      </div>
    </Detail>
  );
}

function TileFields({
  tiles,
  hasPalettes,
  onChange,
}: {
  tiles: Tiles;
  hasPalettes: boolean;
  onChange: (tiles: Tiles) => string | null | undefined;
}) {
  const { tile, flips } = tiles;
  return (
    <div className="flex flex-wrap items-center gap-2">
      <FieldBox label={t("tile")}>
        <NumberField
          label={t("Tile width")}
          value={tile.w}
          least={1}
          most={256}
          onChange={(w) => onChange({ ...tiles, tile: { ...tile, w } })}
        />
        ×
        <NumberField
          label={t("Tile height")}
          value={tile.h}
          least={1}
          most={256}
          onChange={(h) => onChange({ ...tiles, tile: { ...tile, h } })}
        />
      </FieldBox>
      <Tick label={t("treat flips as equal")} checked={flips} onChange={(next) => void onChange({ ...tiles, flips: next })} />
      {hasPalettes && (
        <Tick
          label={t("treat other palettes as equal")}
          checked={tiles.palettes === true}
          onChange={(next) => void onChange({ tile, flips, ...(next ? { palettes: true } : {}) })}
        />
      )}
    </div>
  );
}
