import type { Project, Source } from "@caravan/core/model";

/** A sheet as its rows are to be used: cut already, or by a grid that it suggests, in the same act. */
export interface RowsOf {
  readonly source: Source;
  readonly rows: readonly number[];
  /** Cuts it first, if it is not cut. */
  readonly cut: (project: Project) => Project;
}
