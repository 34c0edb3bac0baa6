"use client";

import { sheetLook } from "@caravan/core/art";
import { cutOfSuggestion, type GridSuggestion } from "@caravan/core/cut";
import { cutSource, rowsOfSource } from "@caravan/core/edit";
import { isOfPieces, type Project, type Source, sourceById } from "@caravan/core/model";
import { useMemo, useState } from "react";
import { earlierCuts } from "../project/earlier-cuts";
import { useProject } from "../project/open-project";
import { usePicture } from "../project/pictures";
import { useSuggestedCuts } from "../project/suggested-cuts";
import { chosenSource, useView } from "../project/view";
import { Choice } from "../ui/choice";
import { Select } from "../ui/select";
import { SheetDialog } from "../ui/sheet-dialog";
import { t } from "../ui/words";
import { RowsAsClips } from "./rows-as-clips";
import { RowsAsFacings } from "./rows-as-facings";
import type { RowsOf } from "./rows-of";

export type RowsBecome = "clips" | "facings";

/** Makes clips of the rows of a sheet in one act: one clip for each, or the facings of one action. */
export function RowsDialog({ become: first, onClose, onMade }: { become: RowsBecome; onClose: () => void; onMade: () => void }) {
  const project = useProject((each) => each);
  const current = useView((view) => chosenSource(project, view));
  const [become, setBecome] = useState(first);
  const fitting = project.sources.filter((source) => !isOfPieces(source) && (source.cut === null || rowsOfSource(source).length > 0));
  const [id, setId] = useState<string>((fitting.find((each) => each.id === current?.id) ?? fitting[0])?.id ?? "");
  const source = fitting.find((each) => each.id === id);
  const made = () => {
    onClose();
    onMade();
  };
  return (
    <SheetDialog
      title={t("Rows of a sheet")}
      description={
        become === "clips"
          ? t("Each row becomes a clip. Type their names; a row without a name is left out.")
          : t("Each row becomes a clip and one facing of an action.")
      }
      open
      onClose={onClose}
    >
      {source ? (
        <>
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <span className="flex items-center gap-1.5 text-muted">
              {t("Rows of")}
              <Select
                label={t("Sheet")}
                value={source.id}
                options={fitting.map((each) => [each.id, each.name] as const)}
                onChange={setId}
              />
            </span>
            <Choice
              label={t("What rows become")}
              value={become}
              options={[
                ["clips", t("One clip each")],
                ["facings", t("Facings of one action")],
              ]}
              onChange={setBecome}
            />
          </div>
          <PartedRows key={`${source.id} ${become}`} source={source} become={become} onMade={made} />
        </>
      ) : (
        <p>{t("There is no sheet yet. Add one at Sources.")}</p>
      )}
    </SheetDialog>
  );
}

function PartedRows({ source, become, onMade }: { source: Source; become: RowsBecome; onMade: () => void }) {
  const project = useProject((each) => each);
  const picks = useView((view) => view.picked);
  const picture = usePicture(sheetLook(source));
  const uncut = source.cut === null;
  const { grids: suggestions } = useSuggestedCuts(source).cuts;
  const [at, setAt] = useState(0);
  const suggestion = uncut ? suggestions[at] : undefined;
  const parted = useMemo((): RowsOf | null => {
    if (!uncut) return { source, rows: rowsPicked(source, picks), cut: (each) => each };
    if (!suggestion || !picture) return null;
    const cut = (each: Project) =>
      cutSource(each, source.id, cutOfSuggestion(suggestion), picture.coverage, earlierCuts(source, cutOfSuggestion(suggestion)));
    const after = sourceById(cut(project), source.id);
    return { source: after, rows: rowsOfSource(after), cut };
  }, [uncut, source, picks, suggestion, picture, project]);
  if (!parted)
    return <p className="text-muted">{suggestions.length === 0 && picture ? t("Looking for a grid …") : t("Reading the picture …")}</p>;
  return (
    <>
      {uncut && (
        <span className="mb-3 flex items-center gap-1.5 text-muted">
          {t("It is not cut yet: cut it into")}
          <Select label={t("Grid")} value={at} options={suggestions.map((each, k) => [k, inWords(each)] as const)} onChange={setAt} />
        </span>
      )}
      {become === "clips" ? (
        <RowsAsClips key={at} parted={parted} onMade={onMade} />
      ) : (
        <RowsAsFacings key={at} parted={parted} onMade={onMade} />
      )}
    </>
  );
}

/** The rows in which frames are picked; all, if none is. */
function rowsPicked(source: Source, picks: readonly string[]): number[] {
  const all = rowsOfSource(source);
  const own = new Set(source.frames.flatMap((frame) => (picks.includes(`${source.id}/${frame.key}`) ? [frame.row] : [])));
  return own.size === 0 ? all : all.filter((row) => own.has(row));
}

function inWords({ columns, rows, cell }: GridSuggestion): string {
  return t("{columns} × {rows} cells of {w} × {h}", { columns, rows, w: cell.w, h: cell.h });
}
