/** Projects as no person would make them, from hundreds of random edits, with art of their own: what a view must not stumble over. */
import { writeBundle } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { addSources, cutSource } from "@caravan/core/edit";
import { emptyProject, type Project, type SourceId, withDistinctPaths } from "@caravan/core/model";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { pngCodec } from "../packages/cli/src/png";
import { CELL, NO_SPACE, sheetOfCells } from "../packages/core/src/edit/project.fixture";
import { coverage, diceFrom, edited, picture } from "../packages/core/src/edit/random-choices.fixture";
import { EDITS_OF_ART } from "../packages/core/src/edit/random-edits-of-art.fixture";
import { EDITS_OF_MOTION } from "../packages/core/src/edit/random-edits-of-motion.fixture";

const EDITS = Object.values({ ...EDITS_OF_ART, ...EDITS_OF_MOTION });
const EDITS_OF_EACH = 220;

/** A bundle of a project after random edits, the same for the same seed. */
export function randomBundle(seed: number): Uint8Array {
  const added = addSources(emptyProject(`random ${seed}`), [{ fileName: "porter.png", ...picture }]);
  const cells = { by: "cell" as const, cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false };
  const cut = cutSource(added, "s1" as SourceId, cells, coverage);
  return writeBundle(withArt(edited(cut, EDITS, diceFrom(seed * 15_485_863), EDITS_OF_EACH)));
}

interface Pictured {
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
}

/** The project with pictures that exist: random edits only count their pixels. */
function withArt(project: Project): { project: Project; pictures: Map<string, Uint8Array> } {
  const png = pngCodec();
  const pictures = new Map<string, Uint8Array>();
  const drawn = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(drawn);
    if (typeof value !== "object" || value === null) return value;
    if (!isPictured(value)) return Object.fromEntries(Object.entries(value).map(([name, each]) => [name, drawn(each)]));
    const bytes = png.encode(artOf(value));
    const sha256 = sha256Hex(bytes);
    pictures.set(sha256, bytes);
    return { ...value, sha256 };
  };
  return { project: withDistinctPaths(drawn(project) as Project), pictures };
}

function isPictured(value: object): value is Pictured {
  return "sha256" in value && "width" in value && "height" in value;
}

/** Blocks in cells, with a row of pixels that tells pictures of one size apart. */
function artOf({ sha256, width, height }: Pictured): Pixels {
  const cells = sheetOfCells(Math.ceil(width / CELL.w), Math.ceil(height / CELL.h), [7]);
  const art = clearPixels(width, height);
  for (let y = 0; y < height; y++) art.bytes.set(cells.bytes.subarray(y * cells.width * 4, (y * cells.width + width) * 4), y * width * 4);
  for (let x = 0; x < Math.min(width, 16); x++) art.bytes.set([Number.parseInt(sha256.slice(x * 2, x * 2 + 2), 16), 90, 60, 255], x * 4);
  return art;
}
