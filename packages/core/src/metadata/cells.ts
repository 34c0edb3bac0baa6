/** Reads files that give the size of a picture's cells and refer to them by number, without a record for each. */
import type { ParsedMetadata } from "../notation";
import type { Coverage } from "../raster";
import { type MetadataRecord, type RecordGroup, saidAnywhere } from "./groups";
import { gridFor } from "./rectangle-of";
import { type FieldPaths, numberAt } from "./values";

/** The pattern of a group that represents all cells of the picture. */
export const CELLS = "$cells";

/** As many cells as are made of one picture. */
const MOST_CELLS = 100_000;

/** A record for each cell of the picture, in reading order, numbered from 0. */
export function cellRecords({ tree }: ParsedMetadata, fields: FieldPaths, coverage: Coverage): RecordGroup {
  const around = saidAnywhere(tree);
  const one = recordOf(0, around);
  const number = (path: string | undefined) => numberAt(one, path);
  const grid = gridFor([one], { fields }, coverage);
  const w = number(fields.cellW) ?? grid?.cell.w ?? 0;
  const h = number(fields.cellH) ?? grid?.cell.h ?? 0;
  if (w <= 0 || h <= 0) return { pattern: CELLS, keyed: false, records: [] };
  const along = (size: number, cell: number, margin: number, gap: number) => Math.max(0, Math.floor((size - margin + gap) / (cell + gap)));
  const columns =
    number(fields.columns) ?? grid?.columns ?? along(coverage.width, w, number(fields.marginX) ?? 0, number(fields.gapX) ?? 0);
  const rows = along(coverage.height, h, number(fields.marginY) ?? grid?.margin.y ?? 0, number(fields.gapY) ?? grid?.gap.y ?? 0);
  const count = Math.min(MOST_CELLS, columns * rows);
  return { pattern: CELLS, keyed: false, records: Array.from({ length: count }, (_, k) => recordOf(k, around)) };
}

/** One cell, with everything that the file says around it. */
export function probeCell({ tree }: ParsedMetadata): MetadataRecord {
  return recordOf(0, saidAnywhere(tree));
}

function recordOf(index: number, around: MetadataRecord["around"]): MetadataRecord {
  return { path: `cell ${index}`, keys: [String(index)], fields: new Map([["index", index]]), lists: new Map(), around };
}
