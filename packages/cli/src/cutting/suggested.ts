import { suggestGrids, suggestOutlines } from "@caravan/core/cut";
import { counted } from "@caravan/core/model";
import { type Coverage, clearGround, coverageOf, findGround, type Pixels } from "@caravan/core/raster";
import { note, wrongCall } from "../output";
import type { CutOptions } from "./call";
import type { Sheet, Told } from "./sheet";

/** The drawing on an opaque background, if there is one: grids are found by it. */
function seenThrough(pixels: Pixels, coverage: Coverage, image: string): Coverage {
  const ground = coverage.colours ? findGround(pixels) : null;
  if (!ground) return coverage;
  note(`${image}: These suggestions ignore its opaque background; --clear auto clears it when cutting.`);
  return coverageOf(clearGround(pixels, ground.clearing));
}

/** Suggests ways of cutting, best first. Throws `WrongCall` with `--out`, because nothing is cut. */
export function suggested({ image, pixels, coverage: all }: Sheet, options: CutOptions): Told {
  if (options.out !== undefined) wrongCall("--suggest cuts nothing; leave out --out.");
  const coverage = seenThrough(pixels, all, image);
  const suggestions = suggestGrids(coverage, undefined, all);
  const along = suggestOutlines(coverage, suggestions);
  const outlines = along && { first: along.first, frames: along.count, join: along.cut.joinPx, least: along.cut.leastPx };
  const said =
    outlines &&
    `along outlines: ${counted(outlines.frames, "frame")} (--islands --join ${outlines.join} --least ${outlines.least} --level)`;
  const grids = suggestions.map(
    ({ cell, margin, gap, columns, rows, score, framed, spread }) =>
      `${columns} × ${rows} cells of ${cell.w} × ${cell.h} px, margin ${margin.x},${margin.y}, gap ${gap.x},${gap.y}${framed ? ", between drawn lines" : ""}${spread ? `, the rest spread (--count ${columns}x${rows} --spread)` : ""} (${score.toFixed(2)})`,
  );
  const lines = said ? (outlines?.first ? [`${said}; no grid fits`, ...grids] : [...grids, said]) : grids;
  return {
    told: { image, width: coverage.width, height: coverage.height, suggestions, outlines },
    words: lines.length === 0 ? `${image}: nothing is drawn in it` : lines.join("\n"),
  };
}
