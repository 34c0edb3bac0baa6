/**
 * Suggests cutting along outlines, and ranks that first if no grid fits: figures drawn or packed in uneven boxes.
 *
 * A grid fits if its lines cut through little that is connected. Holds: a suggestion has at least two pieces. Cost: that of cutting along
 * outlines, and O(islands) per grid.
 */
import { type Cut, encloses, type Rect } from "../model";
import type { Coverage } from "../raster";
import { cellAt, type Grid, gridOf } from "./grid";
import { figuresAmong, findIslands, type Island } from "./islands";
import { cutSheet, type Piece } from "./pieces";
import { cutOfSuggestion, type GridSuggestion } from "./suggestion";

type OutlineCut = Extract<Cut, { by: "outlines" }>;

/** The default recipe: loose bits join their figure, dirt is left out, rows are level. */
export const USUAL_OUTLINES: OutlineCut = { by: "outlines", joinPx: 12, leastPx: 2, level: true };

export interface OutlineSuggestion {
  readonly cut: OutlineCut;
  readonly count: number;
  /** The pieces of the row that has most of them. */
  readonly row: readonly Piece[];
  /** Whether the best grid does not fit, so that this ranks first. */
  readonly first: boolean;
}

/** The fraction of the drawing that a fitting grid may cut. */
const MOST_CUT = 0.12;
/** Figures in a cell, on average: a grid that fits holds one in each. */
const MOST_IN_A_CELL = 1.4;
/** The score of a grid on which the sheet repeats so plainly that it fits whatever it cuts. */
const PLAIN = 0.85;
/** Bits that hang together, before loose ones are joined to their figures. */
const MOST_ISLANDS = 4000;
/** More pieces than this are no figures. */
const MOST_PIECES = 1000;

/** Null if there are no outlines to speak of: a sheet that is drawn all over, or one figure. */
export function suggestOutlines(coverage: Coverage, grids: readonly GridSuggestion[]): OutlineSuggestion | null {
  if (coverage.colours) return null;
  const { islands } = findIslands(coverage, { joinPx: 0, leastPx: 1 });
  // Joining dust takes long, and dust contains no figures.
  if (islands.length < 2 || islands.length > MOST_ISLANDS) return null;
  const usual = joinedOver(coverage, USUAL_OUTLINES.joinPx);
  const { cut, pieces } = bestJoined(coverage, usual, figuresAmong(islands));
  if (pieces.length < 2 || pieces.length > MOST_PIECES) return null;
  const row = groupedByRow(pieces).reduce((most, each) => (each.length > most.length ? each : most), [] as readonly Piece[]);
  const size = { w: coverage.width, h: coverage.height };
  const grid = grids[0] && gridOf(size, cutOfSuggestion(grids[0]), "suggestion");
  // Drawn lines are islands that no cell contains; shadows may hang together all along a row whose figures repeat plainly.
  const isPlain = grids[0] !== undefined && (grids[0].framed || grids[0].score >= PLAIN);
  const fits = isPlain || (grid !== undefined && cutBy(grid, islands) <= MOST_CUT && perCell(grid, usual.pieces) <= MOST_IN_A_CELL);
  return { cut, count: pieces.length, row, first: !fits && areAlike(pieces.map(({ rect }) => rect)) };
}

/** px: distances over which parts are joined, less than usual. */
const NEARER_JOINS = [8, 5, 3, 2, 1];
/** The fraction of pieces with as many figures as most of them have. */
const ALIKE = 0.9;

interface Joined {
  readonly cut: OutlineCut;
  readonly pieces: readonly Piece[];
}

/**
 * The largest distance at which nearly all pieces have equally many figures: one each, or a figure and what hangs about it. Where figures stand
 * closer together than the usual distance, some would be joined with their neighbours and others would not, or whole rows of them would be.
 * The usual one if no distance does it.
 */
function bestJoined(coverage: Coverage, usual: Joined, figures: readonly Island[]): Joined {
  if (isEven(usual.pieces, figures)) return usual;
  for (const joinPx of NEARER_JOINS) {
    const joined = joinedOver(coverage, joinPx);
    if (isEven(joined.pieces, figures)) return joined;
  }
  return usual;
}

function joinedOver(coverage: Coverage, joinPx: number): Joined {
  const cut = { ...USUAL_OUTLINES, joinPx };
  return { cut, pieces: cutSheet(coverage, cut, "suggestion").pieces };
}

/** Whether nearly all pieces have equally many figures, and none has neighbours that were joined. */
function isEven(pieces: readonly Piece[], figures: readonly Island[]): boolean {
  const within = pieces.map(({ rect }) => figures.filter((each) => encloses(rect, each.rect)));
  const counts = new Map<number, number>();
  for (const { length } of within) counts.set(length, (counts.get(length) ?? 0) + 1);
  const [usual, count] = [...counts].reduce((most, each) => (each[1] > most[1] ? each : most), [0, 0]);
  return count >= pieces.length * ALIKE && !within.some((each) => areNeighbours(each, usual));
}

/**
 * Whether figures are separate ones of like size, and no parts of one: two where most pieces have one, two above each other, or three. Two
 * beside each other everywhere may be a pair of boots.
 */
function areNeighbours(figures: readonly Island[], usual: number): boolean {
  const areas = figures.map(({ area }) => area);
  if (figures.length < 2 || Math.min(...areas) <= Math.max(...areas) / 2) return false;
  const isStacked = figures.some(({ rect }) => figures.some((other) => other.rect.y >= rect.y + rect.h));
  return figures.length > 2 || usual === 1 || isStacked;
}

function groupedByRow(pieces: readonly Piece[]): Piece[][] {
  const rows: Piece[][] = [];
  for (const piece of pieces) {
    const row = rows[piece.row] ?? [];
    rows[piece.row] = row;
    row.push(piece);
  }
  return rows;
}

/** Share of the drawn pixels that hang together across the lines of a grid. */
function cutBy(grid: Grid, islands: readonly Island[]): number {
  let cut = 0;
  let all = 0;
  for (const { rect, area } of islands) {
    all += area;
    const [from, to] = [cellAt(grid, rect.x, rect.y), cellAt(grid, rect.x + rect.w - 1, rect.y + rect.h - 1)];
    if (!from || !to || from.column !== to.column || from.row !== to.row) cut += area;
  }
  return all === 0 ? 0 : cut / all;
}

/** The number of pieces in each non-empty cell, by their centres. */
function perCell(grid: Grid, pieces: readonly Piece[]): number {
  const cells = new Set<string>();
  for (const { rect } of pieces) {
    const cell = cellAt(grid, Math.floor(rect.x + rect.w / 2), Math.floor(rect.y + rect.h / 2));
    cells.add(cell ? `${cell.column} ${cell.row}` : "none");
  }
  return pieces.length / cells.size;
}

/** Figures of one sheet are of like size; a blob of many that touch is not. */
function areAlike(rects: readonly Rect[]): boolean {
  const areas = rects.map(({ w, h }) => w * h).sort((a, b) => a - b);
  const middle = areas[Math.floor(areas.length / 2)] as number;
  return (areas.at(-1) as number) <= 8 * middle;
}
