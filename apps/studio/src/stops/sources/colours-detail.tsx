"use client";

import { setSourcePalette } from "@caravan/core/edit";
import type { Source } from "@caravan/core/model";
import { recolouringOf } from "@caravan/core/palette";
import { useState } from "react";
import { NewPalette } from "../../palettes/new-palette";
import { PaletteDetail } from "../../palettes/palette-detail";
import { act } from "../../project/act";
import { useProject } from "../../project/open-project";
import { Detail } from "../../ui/detail";
import { Select } from "../../ui/select";
import { t } from "../../ui/words";

/** Sets the palette that a drawn source wears: its pictures in other colours, as a recipe. */
export function ColoursDetail({ source }: { source: Source }) {
  const palettes = useProject((project) => project.palettes) ?? [];
  const [opened, setOpened] = useState<string | null>(null);
  const open = palettes.find(({ name }) => name === (opened ?? source.palette));
  const worn = source.palette;
  const usable = palettes.filter(({ name }) => recolouringOf(palettes, name) !== null).map(({ name }) => name as string);
  const gone = worn !== undefined && !usable.includes(worn) ? [worn] : [];
  return (
    <>
      <Detail title={t("Colours")} aside={worn === undefined ? t("as drawn") : t("in {worn}", { worn })}>
        <div className="flex flex-wrap items-center gap-1.5">
          <Select
            label={t("Palette")}
            value={worn ?? ""}
            options={[
              ["", t("as drawn")],
              ...usable.map((name) => [name, name] as const),
              ...gone.map((name) => [name, t("{name}, missing", { name })] as const),
            ]}
            onChange={(name) => act(setSourcePalette, source.id, name === "" ? null : name)}
          />
          {palettes.length > 0 && (
            <Select
              label={t("Palette to compare with")}
              value={open?.name ?? null}
              placeholder={t("compare with …")}
              options={palettes.map(({ name }) => [name as string, name as string] as const)}
              onChange={setOpened}
            />
          )}
          <NewPalette parts={source} onMade={setOpened} />
        </div>
        {usable.length === 0 && (
          <p className="mt-2 text-small text-muted">
            {t(
              "A palette of its colours and a second one that is worn for it give the same pictures in other colours; the files stay as they are.",
            )}
          </p>
        )}
      </Detail>
      {open && <PaletteDetail palette={open} all={palettes} source={source} onRenamed={setOpened} />}
    </>
  );
}
