/**
 * Suggests grids for a fully drawn sheet, without clear space between cells.
 *
 * The evidence is in the colours: neighbouring lines differ more between cells than within one, and a cell resembles its neighbour more
 * than the sheet resembles itself shifted by half a cell. Typical sizes, square cells and typical counts also score. One cell as large as
 * the sheet comes last if the sides divide. Holds: every suggestion divides both sides without a remainder. Cost: O(divisors along ×
 * divisors down + sides).
 */
import type { Coverage, SideColours } from "../raster";
import type { GridSuggestion } from "./suggestion";

const LEAST_CELL = 8; // px
const MOST_COUNT = 256;

interface Part {
  readonly cell: number;
  readonly count: number;
  readonly cost: number;
  /** How plainly the colours say that cells meet so. */
  readonly seams: number;
}

/** At most `most` grids, best first; null if the picture is not drawn all over, or its sides do not divide. */
export function suggestFull({ width, height, colours }: Coverage, most: number): GridSuggestion[] | null {
  if (!colours) return null;
  const along = partsOf(width, colours.along);
  const down = partsOf(height, colours.down);
  const plainest = (parts: readonly Part[]) => Math.max(...parts.map(({ seams }) => seams));
  const [plainAlong, plainDown] = [plainest(along), plainest(down)];
  const pairs = along.flatMap((x) =>
    down.map((y) => {
      const unseen = costOfUnseen(x, plainDown) + costOfUnseen(y, plainAlong);
      return { x, y, cost: x.cost + y.cost + costOfShape(x, y) + unseen };
    }),
  );
  if (pairs.length < 2) return null;
  pairs.sort((a, b) => a.cost - b.cost);
  return pairs.slice(0, most).map(({ x, y, cost }) => ({
    cell: { w: x.cell, h: y.cell },
    margin: { x: 0, y: 0 },
    gap: { x: 0, y: 0 },
    columns: x.count,
    rows: y.count,
    score: Math.round(1000 / (1 + Math.exp(cost + 1))) / 1000,
  }));
}

function partsOf(length: number, colours: SideColours): Part[] {
  const parts: Part[] = [];
  for (let count = 1; count <= Math.min(MOST_COUNT, length / Math.min(LEAST_CELL, length)); count++) {
    if (length % count !== 0) continue;
    const cell = length / count;
    const seams = count === 1 ? 0 : seamsAt(colours, cell);
    const alike = count === 1 ? 0 : likenessAt(colours, cell);
    parts.push({ cell, count, seams, cost: costOfSize(cell) + costOfCount(count) - seams - alike });
  }
  return parts;
}

/** How much more lines differ at cell borders than elsewhere, 0 to 4; every line counts, so that a double period gains nothing. */
function seamsAt({ seams }: SideColours, cell: number): number {
  let at = 0;
  let least = Number.POSITIVE_INFINITY;
  let lines = 0;
  let all = 0;
  for (let k = 1; k < seams.length; k++) {
    all += seams[k] as number;
    if (k % cell !== 0) continue;
    at += seams[k] as number;
    least = Math.min(least, seams[k] as number);
    lines++;
  }
  const others = (all - at) / Math.max(1, seams.length - 1 - lines);
  const mean = at / Math.max(1, lines);
  // Flat art has hardly any difference at all: a little noise is none.
  const ratio = (mean + 1) / (others + 1);
  const surest = (least + 1) / (others + 1);
  const strength = Math.min(2, 0.8 * Math.log2(Math.max(1, ratio))) + Math.min(2, 0.9 * Math.log2(Math.max(1, surest)));
  if (ratio <= 1.15) return 0;
  // A cell in which every inner line of some part is a seam as well is several cells.
  const parted = [2, 3, 5].some(
    (parts) => cell % parts === 0 && cell / parts >= LEAST_CELL && leastInside(seams, cell, parts) > 0.45 * mean + 0.5,
  );
  // More lines that are all seams are better evidence.
  return strength + 0.05 * Math.log2(lines + 1) - (parted && ratio > 1.6 ? 1.2 : 0);
}

/** The weakest of the lines that would divide every cell into this many. */
function leastInside(seams: Float32Array, cell: number, parts: number): number {
  let least = Number.POSITIVE_INFINITY;
  for (let k = cell / parts; k < seams.length; k += cell / parts) if (k % cell !== 0) least = Math.min(least, seams[k] as number);
  return least;
}

/** How much more a cell resembles its neighbour than the sheet shifted by half a cell, 0 to 1.6. */
function likenessAt({ shifts }: SideColours, cell: number): number {
  const known = new Map(shifts);
  const own = known.get(cell);
  if (own === undefined) return 0;
  const half = known.get(cell / 2);
  const others = shifts.filter(([shift]) => shift % cell !== 0).map(([, difference]) => difference);
  const usual = half ?? (others.length === 0 ? own : others.reduce((sum, each) => sum + each, 0) / others.length);
  if (usual < 1) return 0;
  return Math.max(0, Math.min(1.2, 1.6 * (1 - own / usual)));
}

/** Cells that people choose: powers of two and their halves between. */
function costOfSize(cell: number): number {
  if (cell < LEAST_CELL) return 2;
  const common = [16, 32, 64].includes(cell)
    ? 0
    : [24, 48, 8, 128, 96].includes(cell)
      ? 0.15
      : cell % 16 === 0
        ? 0.25
        : cell % 8 === 0
          ? 0.4
          : cell % 2 === 0
            ? 0.7
            : 1;
  return common + (cell > 128 ? 0.3 * Math.log2(cell / 128) : 0) + (cell < 16 ? 0.7 : 0);
}

function costOfCount(count: number): number {
  return count === 1 ? 0.45 : count > 32 ? 0.15 * Math.log2(count / 32) : [2, 3, 4, 5, 6, 8, 10, 12, 16].includes(count) ? 0 : 0.1;
}

/** Lines without any seam are unlikely on a sheet whose cells differ plainly where they meet the other way. */
function costOfUnseen({ count, seams }: Part, plainOther: number): number {
  return count > 1 && plainOther > 1.5 && seams < 0.35 * plainOther ? 1.1 : 0;
}

/** Square cells are by far the likeliest; one cell for all is none. */
function costOfShape(x: Part, y: Part): number {
  if (x.count === 1 && y.count === 1) return 3;
  const shape = Math.abs(Math.log2(x.cell / y.cell));
  // A strip of square cells most of all.
  if (shape === 0) return x.count === 1 || y.count === 1 ? -1.3 : -0.6;
  return 0.35 * shape + 0.1;
}
