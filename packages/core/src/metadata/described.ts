import type { Coverage } from "../raster";

/** The picture that a metadata file is held against. */
export interface Described {
  /** Its file name, for files that describe several. */
  readonly picture: string;
  readonly coverage: Coverage;
}
