/**
 * Table of the ways of cutting. To add one, add a row here with its fields and, if something can be dragged on the sheet, its boxes. How
 * frames are found is in the core (`core/cut/ways`).
 */

import { restoreCut } from "@caravan/core/edit";
import type { FrameRef, Source } from "@caravan/core/model";
import type { ComponentType } from "react";
import { act } from "../../project/act";
import { lastCells } from "../../project/earlier-cuts";
import { useView, type Way } from "../../project/view";
import { inBackground } from "../../ui/in-background";
import { t } from "../../ui/words";
import { cutAlongOutlines } from "./along-outlines";
import { type DraggedBoxes, frameBoxes, gridPartBoxes, regionBoxes } from "./boxes";
import { CellFields } from "./grid-fields";
import { HandFields } from "./hand-fields";
import { OutlineFields } from "./outline-fields";
import { isGrid } from "./recipe";
import { RegionFields } from "./region-fields";

export interface FieldsOfWay {
  readonly source: Source;
  readonly picked: readonly FrameRef[];
}

interface WayOfCutting {
  readonly way: Way;
  readonly title: string;
  readonly key: string;
  /** As the list of keys says it. */
  readonly command: string;
  readonly Fields: ComponentType<FieldsOfWay>;
  /** What can be dragged on the sheet. */
  readonly boxes?: DraggedBoxes;
  /** What choosing it does at once, besides showing its fields. */
  readonly begin?: (source: Source) => void;
}

export const WAYS: readonly WayOfCutting[] = [
  {
    way: "cells",
    title: t("Cells"),
    key: "k",
    command: t("Cut into cells"),
    Fields: CellFields,
    boxes: gridPartBoxes,
    begin: (source) => source.cut && !isGrid(source) && backToCells(source),
  },
  {
    way: "regions",
    title: t("Regions"),
    key: "l",
    command: t("Cut in regions, each with its own grid"),
    Fields: RegionFields,
    boxes: regionBoxes,
  },
  {
    way: "outlines",
    title: t("Outlines"),
    key: "o",
    command: t("Cut along outlines"),
    Fields: OutlineFields,
    begin: (source) => source.cut?.by !== "outlines" && inBackground(cutAlongOutlines(source, null, isStillChosen)),
  },
  { way: "hand", title: t("By hand"), key: "h", command: t("Cut by hand"), Fields: HandFields, boxes: frameBoxes },
];

/** Whether no other way was chosen since. */
function isStillChosen(): boolean {
  const { way } = useView.getState();
  return way === null || way === "outlines";
}

/** Cuts the sheet into its earlier cells, with everything decided about them; does nothing if it had none. */
function backToCells(source: Source): void {
  const before = lastCells(source);
  if (before) act(restoreCut, source.id, before);
}

/** Ways that come with the art and cannot be chosen. */
export type CutWay = Way | "metadata" | "pictures" | "pieces";

/** The way that a source is cut, or that a person is about to cut it. */
export function wayOf(source: Source, chosen: Way | null): CutWay {
  const by = source.cut?.by ?? "cell";
  if (by === "pictures" || by === "pieces") return by;
  return chosen ?? (by === "cell" || by === "count" ? "cells" : by);
}

export function wayNamed(way: CutWay): WayOfCutting | undefined {
  return WAYS.find((each) => each.way === way);
}
