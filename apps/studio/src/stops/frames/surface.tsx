"use client";

import { sheetLook } from "@caravan/core/art";
import type { Grid } from "@caravan/core/cut";
import { cutSource } from "@caravan/core/edit";
import { frameRef, isOfPieces, keptRefs, type Source } from "@caravan/core/model";
import { useMemo, useState } from "react";
import { RowsDialog } from "../../making/rows-dialog";
import { earlierCuts } from "../../project/earlier-cuts";
import { edit, useProject } from "../../project/open-project";
import { usePicture } from "../../project/pictures";
import { chosenSource, clearPicks, go, pickedFrames, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { EmptyPanel } from "../../ui/empty-panel";
import { useKeys } from "../../ui/keys";
import { t } from "../../ui/words";
import { BenchSurface } from "./bench/surface";
import { DoubtLine } from "./doubt-line";
import { WorthALookLink } from "./frame-findings";
import { GroundLine } from "./ground-line";
import { dropOrRestore, makeClip } from "./make-clip";
import { cutOf, framesInWords, gridOfSource, isGrid, outcomeInWords } from "./recipe";
import { SeriesWall } from "./series-wall";
import { SheetCanvas } from "./sheet-canvas";
import { Suggestions } from "./suggestions";
import { Tray } from "./tray";
import { TrayTools } from "./tray-tools";
import { Ways } from "./ways";
import { wayNamed, wayOf } from "./ways-table";

/** Shows the sheet with its cut and the tray of frames below it, or the bench for assembling frames. */
export function Surface() {
  const project = useProject((each) => each);
  const source = useView((view) => chosenSource(project, view));
  return source && isOfPieces(source) ? <BenchSurface source={source} /> : <SheetSurface />;
}

function SheetSurface() {
  const project = useProject((each) => each);
  const source = useView((view) => chosenSource(project, view));
  const cursor = useView((view) => view.cursor);
  const picks = useView((view) => view.picked);
  const picked = useMemo(() => pickedFrames(project, { picked: picks }), [project, picks]);
  const grid = useMemo(() => source && gridOfSource(source), [source]);
  const chosenWay = useView((view) => view.way);
  const way = source && wayOf(source, chosenWay);
  const Fields = way ? wayNamed(way)?.Fields : undefined;
  const atCursor = source?.frames.find((frame) => frameRef(source, frame) === cursor);
  useKeys(t("Frames"), [
    { keys: "c", label: t("Make a clip of the picked frames, or of the row that plays"), run: () => makeClip() },
    { keys: "Mod+a", label: t("Pick all frames"), run: () => source && useView.setState({ picked: keptRefs(source) }) },
    { keys: "Shift+c", label: t("Make a clip and stay here"), run: () => makeClip({ stay: true }) },
    {
      keys: "Delete Backspace",
      label: t("Drop the picked frames, or restore the one at the cursor"),
      run: () => {
        if (picked.length > 0) dropOrRestore(picked, false);
        else if (source && atCursor) dropOrRestore([frameRef(source, atCursor)], atCursor.dropped === true);
      },
    },
  ]);
  const [rows, setRows] = useState(false);
  useKeys(t("Rows of the sheet"), [{ keys: "Shift+r", label: t("Make a clip of each row"), run: () => setRows(true) }]);
  if (!source || !grid) return <Empty />;
  return (
    <>
      <GroundLine source={source} />
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1.5">
        <Ways source={source} />
        {way === "cells" && <Suggestions source={source} />}
      </div>
      {rows && <RowsDialog become="clips" onClose={() => setRows(false)} onMade={() => go("clips")} />}
      {Fields && <Fields source={source} picked={picked} />}
      {way === "metadata" && <DoubtLine source={source} />}
      <div className="flex items-center justify-between gap-3 max-[39.9375em]:flex-wrap">
        <Outcome source={source} grid={isGrid(source) ? grid : null} />
        <span className="grow" />
        {source.pictures.length === 1 && (
          <Button onClick={() => setRows(true)} hint="Shift+R" aria-keyshortcuts="Shift+r">
            {t("Clips of rows …")}
          </Button>
        )}
        <Button
          look={picked.length > 0 ? "now" : "plain"}
          onClick={() => makeClip()}
          disabled={picked.length === 0 && source.frames.length === 0}
          hint="C"
          aria-keyshortcuts="c"
        >
          {picked.length > 0 || source.frames.length === 0 ? t("Make clip") : t("Make clip of the row")}
        </Button>
      </div>
      {way === "pictures" ? (
        <SeriesWall source={source} />
      ) : (
        <SheetCanvas source={source} grid={isGrid(source) ? grid : null} way={way ?? "cells"} />
      )}
      <Tray source={source}>
        <div className="flex items-center gap-2 max-[39.9375em]:flex-wrap">
          <TrayTools source={source} picked={picked} />
          <span data-testid="picked" className="text-muted">
            {picked.length > 0 ? t("{count} picked, in picking order", { count: picked.length }) : t("click picks")}
          </span>
          {picked.length > 0 && (
            <>
              <Button className="min-h-6" onClick={() => dropOrRestore(picked, false)}>
                {t("Drop")}
              </Button>
              <Button className="min-h-6" onClick={clearPicks}>
                {t("Unpick all")}
              </Button>
            </>
          )}
        </div>
      </Tray>
    </>
  );
}

/** What the grid makes of the sheet, at once and in words. */
function Outcome({ source, grid }: { source: Source; grid: Grid | null }) {
  const { text, good } = grid ? outcomeInWords(source, grid) : framesInWords(source);
  const picture = usePicture(sheetLook(source));
  if (!source.cut)
    return (
      <div className="flex items-center gap-3">
        <p role="status" data-testid="outcome" className="text-muted">
          {t("Not cut yet: take a suggestion, or type the number of cells.")}
        </p>
        <Button
          disabled={!picture}
          onClick={() => picture && edit(cutSource, source.id, cutOf(source), picture.coverage, earlierCuts(source, cutOf(source)))}
        >
          {t("Use it whole")}
        </Button>
      </div>
    );
  return (
    <div className="flex min-w-0 items-center gap-3">
      <p role="status" data-testid="outcome" className={good ? "text-cactus" : "text-brick"}>
        {text}
      </p>
      <WorthALookLink source={source} />
    </div>
  );
}

function Empty() {
  return (
    <EmptyPanel title={t("Nothing to cut yet")} next={{ label: t("Go to Sources"), run: () => go("sources") }}>
      {t("Drop a picture here to see it at whole-number zoom with the grid over it.")}
    </EmptyPanel>
  );
}
