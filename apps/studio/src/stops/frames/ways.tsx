"use client";

import { sheetLook } from "@caravan/core/art";
import { cutSource } from "@caravan/core/edit";
import type { Cut, Source } from "@caravan/core/model";
import { begin } from "../../project/begun";
import { clearSource } from "../../project/clear-source";
import { pictureOfLook, usePicture } from "../../project/pictures";
import { useView, type Way } from "../../project/view";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { inBackground } from "../../ui/in-background";
import { useKeys } from "../../ui/keys";
import { say } from "../../ui/notices";
import { run } from "../../workers/client";
import { fromText } from "../../workers/jobs";
import { backToCells, rememberCells } from "./cells-before";
import { isGrid } from "./recipe";

const WAYS = [
  ["cells", "Cells"],
  ["regions", "Regions"],
  ["outlines", "Outlines"],
  ["hand", "By hand"],
] as const satisfies readonly (readonly [Way, string])[];

/** The way that a source is cut, or that a person is about to cut it. */
export type CutWay = Way | "metadata" | "pictures";

export function wayOf(source: Source, chosen: Way | null): CutWay {
  if (source.cut?.by === "pictures") return "pictures";
  if (chosen) return chosen;
  switch (source.cut?.by) {
    case "regions":
      return "regions";
    case "outlines":
      return "outlines";
    case "hand":
      return "hand";
    case "metadata":
      return "metadata";
    default:
      return "cells";
  }
}

/** Choosing how to cut. Frames that stay the same rectangle keep their names and clips, whichever way. */
export function Ways({ source }: { source: Source }) {
  const chosen = useView((view) => view.way);
  const way = wayOf(source, chosen);
  const choose = (next: Way) => {
    useView.setState({ way: next });
    if (next === "outlines" && source.cut?.by !== "outlines") inBackground(cutAlongOutlines(source, USUAL_OUTLINES));
    if (next === "cells" && source.cut && !isGrid(source)) backToCells(source);
  };
  rememberCells(source);
  useKeys("Ways of cutting", [
    { keys: "k", label: "Cut into cells", run: () => choose("cells") },
    { keys: "l", label: "Cut in regions, each with its own grid", run: () => choose("regions") },
    { keys: "o", label: "Cut along outlines", run: () => choose("outlines") },
    { keys: "h", label: "Cut by hand", run: () => choose("hand") },
  ]);
  if (way === "pictures") return <p className="text-muted">A series: each of its {source.pictures.length} pictures is a frame.</p>;
  return (
    <Choice
      label="Way of cutting"
      value={way === "metadata" ? "" : way}
      options={way === "metadata" ? [...WAYS, ["", "Metadata"] as const] : WAYS}
      onChange={(next) => next !== "" && choose(next as Way)}
    />
  );
}

export type OutlineCut = Extract<Cut, { by: "outlines" }>;
export const USUAL_OUTLINES: OutlineCut = { by: "outlines", joinPx: 12, leastPx: 2, level: true };

/** Cuts a source along its outlines; what hangs together is found in a worker. */
export async function cutAlongOutlines(source: Source, cut: OutlineCut): Promise<void> {
  const work = begin();
  try {
    const { coverage } = await pictureOfLook(sheetLook(source));
    const pieces = fromText(await run("findPieces", { coverage, cut, where: source.name }, { signal: work.signal }));
    work.stillHas(source);
    const error = work.edit(cutSource, source.id, cut, pieces);
    if (error) say({ tone: "trouble", text: error.message });
  } catch (error) {
    say({ tone: "trouble", text: error instanceof Error ? error.message : String(error) });
  }
}

const GROUNDS = {
  plain: "a plain background",
  key: "a key colour as its background",
  checker: "a picture of a checkerboard as its background",
};

/** Tells of an opaque ground, with the way to clear it. */
export function GroundLine({ source }: { source: Source }) {
  const picture = usePicture(sheetLook(source));
  const { clearing } = source;
  const ground = clearing && clearing.colours.length > 0 ? null : (picture?.ground ?? null);
  const clear = () => ground && clearSource(source, { ...ground.clearing, specks: clearing?.specks });
  useKeys("The background", ground ? [{ keys: "u", label: "Clear the opaque background", run: () => clear() }] : []);
  if (!ground) return null;
  return (
    <div className="flex items-center justify-between gap-3 rounded-box border border-l-4 border-line border-l-brick bg-raised px-3 py-1.5">
      <p>
        This sheet has {GROUNDS[ground.kind]}, {ground.clearing.colours.join(" and ")}: games would show it.
      </p>
      <Button look="now" onClick={() => clear()} hint="U" aria-keyshortcuts="u">
        Clear the background
      </Button>
    </div>
  );
}
