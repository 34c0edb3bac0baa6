import type { NamedFile } from "@caravan/core/codec";
import { cutSheet, type FindingCut, gridOf } from "@caravan/core/cut";
import { counted, type GridCut } from "@caravan/core/model";
import { type CutOptions, makesProject, pictureName } from "./call";
import { type Sheet, type Told, writeFramesOf } from "./sheet";

/** Cuts by a grid or along outlines. */
export async function byRecipe(sheet: Sheet, recipe: FindingCut, options: CutOptions, into: NamedFile[] | null): Promise<Told> {
  const { image, pixels, coverage } = sheet;
  const { width, height } = pixels;
  const { pieces, skippedEmpty, small } = cutSheet(coverage, recipe, image);
  const picture = pictureName(image);
  if (makesProject(options)) (await import("../sheet-project")).writeSheetProject(sheet, { cut: recipe, coverages: [coverage] }, options);
  else
    await writeFramesOf(
      options,
      image,
      pixels,
      pieces.map((piece) => ({ ...piece, name: `${picture}_${piece.number}` })),
      into,
    );
  const frames = pieces.map(({ number, rect, column, row, empty, size, inset }) => ({
    name: `${picture}_${number}`,
    ...rect,
    column,
    row,
    empty,
    ...(size ? { size, inset } : {}),
  }));
  const written = options.out === undefined ? "" : `; written to ${options.out}`;
  if (recipe.by === "outlines") {
    const dirt = small > 0 ? `, ${small} smaller than ${recipe.leastPx} pixels left out` : "";
    return {
      told: { image, width, height, frames, skippedEmpty, skippedSmall: small },
      words: `${image}: ${counted(frames.length, "frame")} along outlines${dirt}${written}`,
    };
  }
  const { columns, rows, cell, spread, leftOver } = gridOf({ w: width, h: height }, recipe as GridCut, image);
  const between = spread.x + spread.y > 0 ? `, ${spread.x} px spread between columns and ${spread.y} px between rows` : "";
  const left =
    leftOver.right + leftOver.bottom > 0
      ? `, ${leftOver.right} px left over at right and ${leftOver.bottom} px at bottom${recipe.by === "count" && !recipe.spread ? " (--spread puts them between the cells)" : ""}`
      : ", nothing left over";
  return {
    told: { image, width, height, cell, columns, rows, frames, skippedEmpty, leftOver, ...(between === "" ? {} : { spread }) },
    words: `${image}: ${columns} × ${rows} cells of ${cell.w} × ${cell.h} px, ${counted(frames.length, "frame")}, ${skippedEmpty} empty left out${between}${left}${written}`,
  };
}
