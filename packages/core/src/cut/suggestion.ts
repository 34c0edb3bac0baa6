import type { Size, Spacing } from "../model";

/** A grid that a sheet may have been drawn on. */
export interface GridSuggestion {
  readonly cell: Size;
  readonly margin: Spacing;
  readonly gap: Spacing;
  readonly columns: number;
  readonly rows: number;
  /** 0 to 1: how well it fits; only to be compared on the same sheet. */
  readonly score: number;
  /** Whether lines are drawn between its cells, or boxes around them. They lie in its gaps. */
  readonly framed?: true;
}
