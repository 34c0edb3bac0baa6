/** Table of facts about each way of cutting. To add one, add a row here, its recipe in the model, and the search for its frames. */
import { type Cut, counted, unreachable } from "../model";
import { t } from "../words";

export interface WayTraits {
  /** Whether its recipe finds frames again by itself; otherwise they are given, and follow their drawings when art changes. */
  readonly finds: boolean;
  /** Whether its frames are cells of a grid, next to one another. */
  readonly cells: boolean;
  /** Whether its frames form visible rows. */
  readonly rows: boolean;
}

const TRAITS: Readonly<Record<Cut["by"], WayTraits>> = {
  cell: { finds: true, cells: true, rows: true },
  count: { finds: true, cells: true, rows: true },
  regions: { finds: true, cells: true, rows: true },
  outlines: { finds: true, cells: false, rows: true },
  hand: { finds: false, cells: false, rows: false },
  metadata: { finds: false, cells: false, rows: false },
  pictures: { finds: true, cells: false, rows: true },
  pieces: { finds: false, cells: false, rows: false },
};

/** All false for a source that is not cut. */
export function traitsOf(cut: Cut | null): WayTraits {
  return cut ? TRAITS[cut.by] : { finds: false, cells: false, rows: false };
}

/** Whether frames of unlike sizes are worth a word: cells and levelled rows have one size, and a file says why its frames do not. */
export function sizesAreTold(cut: Cut): boolean {
  return cut.by === "outlines" ? cut.level : cut.by !== "hand" && cut.by !== "pictures" && cut.by !== "pieces";
}

/** As undo and the details say it: "into 4 × 3 cells". */
export function cutInWords(cut: Cut): string {
  switch (cut.by) {
    case "cell":
      return t("into {w} × {h} px cells", cut.cell);
    case "count":
      return t("into {columns} × {rows} cells", { columns: cut.columns, rows: cut.rows });
    case "regions":
      return t("in {regions}", { regions: counted(cut.regions.length, "region") });
    case "outlines":
      return t("along outlines");
    case "hand":
      return t("by hand");
    case "metadata":
      return t("as {file} says", { file: cut.file });
    case "pictures":
      return t("into its pictures");
    case "pieces":
      return t("from pieces");
    default:
      return unreachable(cut);
  }
}
