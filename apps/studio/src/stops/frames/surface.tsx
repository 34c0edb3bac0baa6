"use client";

import type { Grid } from "@caravan/core/cut";
import { cutSource } from "@caravan/core/edit";
import { frameRef, type Source } from "@caravan/core/model";
import { useMemo } from "react";
import { edit, useProject } from "../../project/open-project";
import { usePicture } from "../../project/pictures";
import { chosenSource, clearPicks, go, pickedFrames, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { useKeys } from "../../ui/keys";
import { GridFields } from "./grid-fields";
import { dropOrRestore, makeClip } from "./make-clip";
import { cutOf, gridOfSource, outcomeInWords } from "./recipe";
import { SheetCanvas } from "./sheet-canvas";
import { Tray } from "./tray";

/** The sheet with its cut, and the tray of frames under it. */
export function Surface() {
  const project = useProject((each) => each);
  const source = useView((view) => chosenSource(project, view));
  const cursor = useView((view) => view.cursor);
  const picks = useView((view) => view.picked);
  const picked = useMemo(() => pickedFrames(project, { picked: picks }), [project, picks]);
  const grid = useMemo(() => source && gridOfSource(source), [source]);
  const atCursor = source?.frames.find((frame) => frameRef(source, frame) === cursor);
  useKeys("Frames", [
    { keys: "c", label: "Make a clip of the picked frames", run: () => makeClip() },
    { keys: "Shift+c", label: "Make a clip and stay here", run: () => makeClip({ stay: true }) },
    {
      keys: "Delete Backspace",
      label: "Drop the picked frames, or restore the one at the cursor",
      run: () => {
        if (picked.length > 0) dropOrRestore(picked, false);
        else if (source && atCursor) dropOrRestore([frameRef(source, atCursor)], atCursor.dropped === true);
      },
    },
  ]);
  if (!source || !grid) return <Empty />;
  return (
    <>
      <GridFields source={source} grid={grid} />
      <div className="flex items-center justify-between gap-3">
        <Outcome source={source} grid={grid} />
        <Button
          look={picked.length > 0 ? "now" : "plain"}
          onClick={() => makeClip()}
          disabled={picked.length === 0}
          hint="C"
          aria-keyshortcuts="c"
        >
          Make clip
        </Button>
      </div>
      <SheetCanvas source={source} grid={grid} />
      <Tray source={source}>
        <div className="flex items-center gap-2">
          <span data-testid="picked" className="text-muted">
            {picked.length > 0 ? `${picked.length} picked, in picking order` : "click picks"}
          </span>
          {picked.length > 0 && (
            <>
              <Button className="min-h-6" onClick={() => dropOrRestore(picked, false)}>
                Drop
              </Button>
              <Button className="min-h-6" onClick={clearPicks}>
                Pick nothing
              </Button>
            </>
          )}
        </div>
      </Tray>
    </>
  );
}

/** What the grid makes of the sheet, at once and in words. */
function Outcome({ source, grid }: { source: Source; grid: Grid }) {
  const { text, good } = outcomeInWords(source, grid);
  const picture = usePicture(source.sha256);
  if (!source.cut)
    return (
      <div className="flex items-center gap-3">
        <p role="status" data-testid="outcome" className="text-muted">
          Not cut yet: type how many cells there are, or how large one is.
        </p>
        <Button disabled={!picture} onClick={() => picture && edit(cutSource, source.id, cutOf(source), picture.coverage)}>
          Take it whole
        </Button>
      </div>
    );
  return (
    <p role="status" data-testid="outcome" className={good ? "text-cactus" : "text-brick"}>
      {text}
    </p>
  );
}

function Empty() {
  return (
    <div className="flex grow flex-col items-center justify-center gap-3 rounded-box border-2 border-dashed border-line-strong text-center">
      <p className="text-title font-bold">No sheet to cut yet</p>
      <p className="max-w-90 text-muted">Drop a PNG here, and it is shown at whole-number zoom with the grid over it.</p>
      <Button look="now" onClick={() => go("sources")}>
        Go to Sources
      </Button>
    </div>
  );
}
