import { basename, extname } from "node:path";
import { cutByGrid, type Grid, gridOf } from "@caravan/core/cut";
import type { Cut } from "@caravan/core/model";
import { coverageOf, crop } from "@caravan/core/raster";
import { type Command, Option } from "commander";
import { readFile, writeFiles } from "../files";
import { pair, spacing } from "../options";
import { pngCodec } from "../png";
import { tell, wrongCall } from "../tell";

interface CutOptions {
  cell?: { a: number; b: number };
  count?: { a: number; b: number };
  margin: { x: number; y: number };
  gap: { x: number; y: number };
  keepEmpty: boolean;
  out?: string;
  json: boolean;
}

const NONE = { x: 0, y: 0 };

export function addCut(program: Command): void {
  program
    .command("cut")
    .summary("cut a sheet into frames")
    .description("Cuts a sheet into equal cells, in reading order. With --out writes each frame as a PNG.")
    .argument("<image>", "a PNG sheet")
    .addOption(new Option("--cell <WxH>", "size of a cell in pixels").argParser(pair).conflicts("count"))
    .addOption(new Option("--count <CxR>", "number of columns and rows").argParser(pair))
    .option("--margin <X[,Y]>", "space before the first cell", spacing, NONE)
    .option("--gap <X[,Y]>", "space between cells", spacing, NONE)
    .option("--keep-empty", "also cells with nothing drawn in them", false)
    .option("--out <dir>", "write each frame to <dir>/<picture>_<index>.png")
    .option("--json", "print one JSON document", false)
    .action(cut);
}

function cut(image: string, options: CutOptions): void {
  const recipe = recipeOf(options);
  const png = pngCodec();
  const pixels = png.decode(readFile(image), image);
  const grid = gridOf({ w: pixels.width, h: pixels.height }, recipe, image);
  const { cells, skippedEmpty } = cutByGrid(coverageOf(pixels), grid, options.keepEmpty);
  const picture = basename(image, extname(image));
  const frames = cells.map(({ number, rect, column, row, empty }) => ({ name: `${picture}_${number}`, ...rect, column, row, empty }));
  if (options.out !== undefined)
    writeFiles(
      options.out,
      (function* () {
        for (const { name, x, y, w, h } of frames) yield { path: `${name}.png`, bytes: png.encode(crop(pixels, { x, y, w, h })) };
      })(),
    );
  const { columns, rows, cell, leftOver } = grid;
  tell(options.json, { image, width: pixels.width, height: pixels.height, cell, columns, rows, frames, skippedEmpty, leftOver }, () =>
    inWords(image, grid, frames.length, skippedEmpty, options.out),
  );
}

function recipeOf(options: CutOptions): Cut {
  const rest = { margin: options.margin, gap: options.gap, keepEmpty: options.keepEmpty };
  if (options.cell) return { by: "cell", cell: { w: options.cell.a, h: options.cell.b }, ...rest };
  if (options.count) return { by: "count", columns: options.count.a, rows: options.count.b, ...rest };
  return wrongCall("Say how to cut: --cell WxH or --count CxR.");
}

function inWords(image: string, grid: Grid, frames: number, skipped: number, out: string | undefined): string {
  const { columns, rows, cell, leftOver } = grid;
  const left =
    leftOver.right + leftOver.bottom > 0
      ? `, ${leftOver.right} px left over at right and ${leftOver.bottom} px at bottom`
      : ", nothing left over";
  const written = out === undefined ? "" : `; written to ${out}`;
  return `${image}: ${columns} × ${rows} cells of ${cell.w} × ${cell.h} px, ${frames} frames, ${skipped} empty left out${left}${written}`;
}
