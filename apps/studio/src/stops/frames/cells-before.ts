/** The cells that a sheet was last cut into, for as long as the page is open: whoever tries another way and comes back finds them as they were. */
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

/** Cuts the sheet into the cells that it had, with all that was decided about them; leaves it if it had none. */
export function backToCells(source: Source): void {
  const before = cells.get(keyOf(source));
  if (before) act(restoreCut, source.id, before);
}
