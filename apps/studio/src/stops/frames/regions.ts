/** Edits the regions of a sheet with several grids. Each change to a region is one new cut. */

import { sheetLook } from "@caravan/core/art";
import { cutOfSuggestion, gridOf } from "@caravan/core/cut";
import { cutSource } from "@caravan/core/edit";
import { type Cut, type GridCut, type Rect, type Source, sheetOf, sourceById } from "@caravan/core/model";
import { cropCoverage } from "@caravan/core/raster";
import { begin } from "../../project/begun";
import { earlierCuts } from "../../project/earlier-cuts";
import { currentProject, edit, editInGesture } from "../../project/open-project";
import { pictureNow, pictureOfLook } from "../../project/pictures";
import { useView } from "../../project/view";
import { say, sayTrouble } from "../../ui/notices";
import { t } from "../../ui/words";
import { run } from "../../workers/client";
import { cutOf } from "./recipe";

export type Region = Extract<Cut, { by: "regions" }>["regions"][number];

/** One cell, as large as its region. */
const WHOLE: GridCut = { by: "count", columns: 1, rows: 1, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: false };

/** Its regions; a sheet with one grid is one region until another is drawn. */
export function regionsOf(source: Source): readonly Region[] {
  const { cut } = source;
  if (cut?.by === "regions") return cut.regions;
  if (cut?.by !== "cell" && cut?.by !== "count") return [];
  const { width, height } = sheetOf(source);
  return [{ area: { x: 0, y: 0, w: width, h: height }, grid: cutOf(source) }];
}

/** Cuts the sheet in these regions; reports an error and returns it. */
function cutInRegions(source: Source, regions: readonly Region[], gesture?: string): string | undefined {
  const coverage = pictureNow(sheetLook(source))?.coverage;
  if (!coverage) return t("The picture is still being read.");
  const cut: Cut = { by: "regions", regions: [...regions] };
  const error = gesture
    ? editInGesture(`${gesture} ${source.id}`, cutSource, source.id, cut, coverage, earlierCuts(source, cut))
    : edit(cutSource, source.id, cut, coverage, earlierCuts(source, cut));
  return error?.message;
}

/** Changes one region. A grid that no longer fits becomes one cell of the region's size, so that edges can be dragged anywhere. */
export function setRegion(source: Source, index: number, change: Partial<Region>): string | undefined {
  const regions = regionsOf(source).map((region, k) => (k === index ? fitting({ ...region, ...change }, source.name) : region));
  useView.setState({ region: index });
  return cutInRegions(source, regions, `region ${index}`);
}

function fitting(region: Region, where: string): Region {
  try {
    gridOf({ w: region.area.w, h: region.area.h }, region.grid, where);
    return region;
  } catch {
    return { ...region, grid: WHOLE };
  }
}

export function removeRegion(source: Source, index: number): void {
  const problem = cutInRegions(
    source,
    regionsOf(source).filter((_, k) => k !== index),
  );
  if (problem) say({ tone: "trouble", text: problem });
  useView.setState({ region: 0 });
}

/** Adds a region with the grid that its picture suggests, or as one cell if it suggests none. */
export async function drawRegion(source: Source, area: Rect): Promise<void> {
  const work = begin();
  try {
    const { coverage } = await pictureOfLook(sheetLook(source));
    const [best] = await run("suggestGrids", { coverage: cropCoverage(coverage, area) }, { signal: work.signal });
    work.stillHas(source);
    // Another region may have come meanwhile; any other cut means that a person has gone on to something else.
    const now = sourceById(currentProject(), source.id);
    if (now.cut !== source.cut && now.cut?.by !== "regions") return;
    const before = regionsOf(now);
    const problem = cutInRegions(now, [...before, { area, grid: best ? cutOfSuggestion(best) : WHOLE }]);
    if (problem) say({ tone: "trouble", text: problem });
    else useView.setState({ region: before.length });
  } catch (error) {
    sayTrouble(error);
  }
}
