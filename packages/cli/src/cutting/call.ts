/** A call of `caravan cut`: its options, what of them does not go together, and the recipe that they give. */
import { basename, extname } from "node:path";
import type { FindingCut } from "@caravan/core/cut";
import type { Correction } from "@caravan/core/metadata";
import type { Clearing } from "@caravan/core/model";
import { findGround, type Pixels } from "@caravan/core/raster";
import { isProjectFile } from "../files";
import { note, wrongCall } from "../output";
import { STANDARD, UNNAMED } from "../standard";

export interface CutOptions {
  replace: boolean;
  cell?: { a: number; b: number };
  count?: { a: number; b: number };
  islands: boolean;
  suggest: boolean;
  meta?: string;
  read: Correction[];
  join?: number;
  least?: number;
  level: boolean;
  margin: { x: number; y: number };
  gap: { x: number; y: number };
  offset?: { x: number; y: number };
  spread: boolean;
  columns?: { first: number; last: number };
  rows?: { first: number; last: number };
  clear?: Clearing["colours"] | "auto";
  tolerance?: number;
  specks?: number;
  keepEmpty: boolean;
  out?: string;
  project: boolean;
  clips?: "rows";
  json: boolean;
}

/** Options that the chosen way of cutting would not heed are a slip of the hand. */
export function refuseStrays(options: CutOptions, images: readonly string[]): void {
  const { islands, join, least, level, clear, tolerance, meta, read } = options;
  if (options.project && options.out === undefined) wrongCall("--project needs --out.");
  if (options.out === STANDARD && options.project) wrongCall("A project goes into a folder or a file, not to standard output.");
  if (images.length > 1 && (meta !== undefined || makesProject(options)))
    wrongCall("--meta and --project take one sheet. To make a project of several, use caravan new.");
  if (images.filter((image) => image === STANDARD).length > 1) wrongCall("Standard input can be read once, but - is given several times.");
  const twin =
    options.out === undefined ? undefined : images.find((image, k) => images.slice(0, k).some((other) => sameStem(other, image)));
  if (twin !== undefined)
    wrongCall(`Two sheets are called ${pictureName(twin)}: their frames would have the same names. Cut them with a separate --out each.`);
  if (options.clips && !makesProject(options)) wrongCall("--clips needs a project: an --out that ends in .caravan, or --project.");
  if (read.length > 0 && meta === undefined) wrongCall("--read needs --meta.");
  if (!islands && (join !== undefined || least !== undefined || level)) wrongCall("--join, --least and --level need --islands.");
  if (options.spread && !options.count) wrongCall("--spread needs --count.");
  if (tolerance !== undefined && (clear === undefined || clear === "auto")) wrongCall("--tolerance needs --clear with a colour.");
}

/** How the ground is cleared away; null if it is left. */
export function clearingOf(pixels: Pixels, { clear, tolerance = 0, specks }: CutOptions, image: string): Clearing | null {
  const small = specks ? { specks } : {};
  const bare: Clearing | null = specks ? { colours: [], tolerance: 0, from: "edges", fringe: false, specks } : null;
  if (clear === undefined) return bare;
  if (clear !== "auto") return { colours: [...clear], tolerance, from: "edges", fringe: false, ...small };
  const ground = findGround(pixels);
  if (ground) return { ...ground.clearing, ...small };
  note(`${image}: There is no opaque background to clear; it is cut as it is.`);
  return bare;
}

export function recipeOf(options: CutOptions): FindingCut {
  if (options.islands) return { by: "outlines", joinPx: options.join ?? 0, leastPx: options.least ?? 1, level: options.level };
  const { margin, gap, keepEmpty, offset: moved, columns, rows } = options;
  const only = columns || rows ? { only: { ...(columns ? { columns } : {}), ...(rows ? { rows } : {}) } } : {};
  const rest = { margin, gap, keepEmpty, ...(moved ? { offset: moved } : {}), ...only };
  if (options.cell) return { by: "cell", cell: { w: options.cell.a, h: options.cell.b }, ...rest };
  if (options.count)
    return { by: "count", columns: options.count.a, rows: options.count.b, ...(options.spread ? { spread: true } : {}), ...rest };
  return wrongCall("Say how to cut: --cell WxH, --count CxR, --islands, --meta FILE or --suggest.");
}

function sameStem(a: string, b: string): boolean {
  return pictureName(a).toLowerCase() === pictureName(b).toLowerCase();
}

/** Whether the output is a project rather than frames. */
export function makesProject({ out, project }: Pick<CutOptions, "out" | "project">): boolean {
  return out !== undefined && (project || isProjectFile(out));
}

/** What the frames' names begin with. */
export function pictureName(image: string): string {
  return image === STANDARD ? UNNAMED : basename(image, extname(image));
}
