"use client";

import { addPiecesSource } from "@caravan/core/edit";
import { frameSize, isOfPieces, keptRefs, type Source } from "@caravan/core/model";
import { act } from "../../project/act";
import { currentProject, useProject } from "../../project/open-project";
import { chooseSource, chosenSource, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { ListHeading, RowList } from "../../ui/row-list";
import { Select } from "../../ui/select";
import { t } from "../../ui/words";
import { PartsList } from "./bench/parts-list";
import { partSources, useBench } from "./bench/state";

/** Chooses the sheet to cut. */
export function List() {
  const project = useProject((each) => each);
  const source = useView((view) => chosenSource(project, view));
  const chosen = source?.id ?? null;
  const sources = partSources(project);
  const parts = sources.find(({ id }) => id === chosen) ?? sources[0];
  const rows = project.sources.map((source) => ({
    id: source.id,
    name: source.name,
    fact: source.cut ? keptRefs(source).length : t("not cut"),
  }));
  // On the bench the pieces are used again and again: they get the space.
  if (source && isOfPieces(source))
    return (
      <>
        <div className="flex items-center justify-between gap-2 px-1.5">
          <h2 className="font-semibold text-muted">{t("Sheet")}</h2>
          <Select
            label={t("Sheet")}
            value={source.id as string}
            options={rows.map(({ id, name }) => [id as string, name] as const)}
            onChange={(id) => chooseSource(id as Source["id"])}
          />
        </div>
        <PartsList source={source} />
      </>
    );
  return (
    <>
      <ListHeading title={t("Sheets")} count={rows.length} />
      <RowList label={t("Sheets")} rows={rows} chosen={chosen} onChoose={chooseSource} />
      {parts && (
        <Button className="mt-2 w-full" onClick={() => putTogether(parts)}>
          {t("Put together from pieces")}
        </Button>
      )}
    </>
  );
}

/** A source more, on a canvas that holds the largest of the pieces twice over, in whole tiles of 8 px. */
function putTogether(parts: Source): void {
  const sizes = parts.frames.map((frame) => frameSize(parts, frame));
  const tiles = (most: number) => Math.max(16, Math.min(256, Math.ceil((most * 2) / 8) * 8));
  const canvas = { w: tiles(Math.max(...sizes.map(({ w }) => w))), h: tiles(Math.max(...sizes.map(({ h }) => h))) };
  if (!act(addPiecesSource, `${parts.name} figure`, canvas)) return;
  const made = currentProject().sources.at(-1);
  if (!made) return;
  chooseSource(made.id);
  useBench.setState({ parts: parts.id, chosen: [], hand: null });
}
