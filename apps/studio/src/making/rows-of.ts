import type { Project, Source } from "@caravan/core/model";

/** Finds a sheet's rows: those it is already cut into, or those of a suggested grid, which is then applied in the same edit. */
export interface RowsOf {
  readonly source: Source;
  readonly rows: readonly number[];
  /** Cuts it first, if it is not cut. */
  readonly cut: (project: Project) => Project;
}
