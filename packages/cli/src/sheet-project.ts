/** Makes a project from one sheet that was cut on the command line: the original art, its recipe, its clips and their actions. */
import { basename, extname } from "node:path";
import { looksLikePng, sha256Hex } from "@caravan/core/codec";
import { type Arrival, clipsOfRows, makeActionsByNames, rowsOfSource, takeIn } from "@caravan/core/edit";
import { matchFacings } from "@caravan/core/facing";
import { type Clearing, emptyProject, type Source } from "@caravan/core/model";
import type { Pixels } from "@caravan/core/raster";
import { readFile } from "./files";
import { pngCodec } from "./png";
import { STANDARD, UNNAMED } from "./standard";
import { writeProject } from "./written-project";

interface ProjectOptions {
  readonly out?: string;
  readonly project: boolean;
  readonly clips?: "rows";
  readonly replace: boolean;
}

export interface CutSheet {
  readonly image: string;
  readonly decoded: Pixels;
  readonly clearing: Clearing | null;
}

/** `cut` is the result for the sheet, `texts` what it was cut by. Throws what `takeIn` and `writeProject` throw. */
export function writeSheetProject(
  { image, decoded, clearing }: CutSheet,
  cut: Pick<Arrival, "cut" | "coverages" | "told" | "clips">,
  { out = "", clips, replace }: ProjectOptions,
  texts: readonly string[] = [],
): void {
  const name = image === STANDARD ? UNNAMED : basename(image, extname(image));
  // A PNG is kept as it came; other pictures become one.
  const file = readFile(image);
  const bytes = looksLikePng(file) ? file : pngCodec().encode(decoded);
  const sha256 = sha256Hex(bytes);
  const picture = { sha256, width: decoded.width, height: decoded.height };
  const arrival: Arrival = { name, pictures: [picture], ...(clearing ? { clearing } : {}), ...cut };
  let project = takeIn(emptyProject(name), [arrival]);
  const source = project.sources[0] as Source;
  if (clips === "rows") {
    const rows = rowsOfSource(source).map((row) => ({ row, name: `${source.name}-${row}` }));
    project = clipsOfRows(project, source.id, rows);
  }
  const names = project.clips.map((clip) => clip.name);
  const matched = matchFacings(names, { first: "s", clockwise: true }).filter(({ byNumber }) => !byNumber);
  if (matched.length > 0) project = makeActionsByNames(project, matched, []);
  writeProject(out, project, new Map([[sha256, bytes]]), `cut ${name}`, replace, texts);
}
