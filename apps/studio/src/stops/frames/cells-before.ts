/** Remembers the grid that a sheet was last cut by while the page is open, so that trying another way and coming back restores it. */
import { restoreCut } from "@caravan/core/edit";
import type { Source } from "@caravan/core/model";
import { act } from "../../project/act";
import { useOpenProject } from "../../project/open-project";
import { isGrid } from "./recipe";

const cells = new Map<string, Source>();

const keyOf = ({ id }: Source) => `${useOpenProject.getState().id} ${id}`;

export function rememberCells(source: Source): void {
  if (source.cut && isGrid(source)) cells.set(keyOf(source), source);
}

/** Cuts the sheet into its earlier cells, with everything decided about them; does nothing if it had none. */
export function backToCells(source: Source): void {
  const before = cells.get(keyOf(source));
  if (before) act(restoreCut, source.id, before);
}
