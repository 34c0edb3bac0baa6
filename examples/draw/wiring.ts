/** The pictures of docs/wiring: the demo's own delivery, enlarged, with lines that show what the numbers mean. */
import { type Atlas, readAtlas } from "@caravan/core/atlas";
import { deliver } from "@caravan/core/deliver";
import type { Delivery, Rect } from "@caravan/core/model";
import { clearPixels, crop, lay, mirrored, type Pixels, scaled } from "@caravan/core/raster";
import { pngCodec } from "../../packages/cli/src/png";
import { openProject } from "../../packages/cli/src/project";
import { dot } from "./canvas";

const ZOOM = 6;
const PAPER = "#F7F2E8";
const INK = "#221F1A";
const LAPIS = "#23557A";
const SAFFRON = "#D4811E";
const FRAME = "porter-walk/20";

/** Every picture by its file name. */
export function wiringPictures(projectFolder: string): Map<string, Pixels> {
  const { project, pictures } = openProject(projectFolder);
  const png = pngCodec();
  const [delivery] = project.deliveries as [Delivery];
  const { files } = deliver(project, delivery, pictures, png);
  const atlas = readAtlas((files.find(({ path }) => path.endsWith(".atlas.json")) as (typeof files)[number]).bytes, "atlas");
  const image = atlas.pages[0]?.image as string;
  const page = png.decode((files.find(({ path }) => path === image) as (typeof files)[number]).bytes, image);
  return new Map([
    ["placing.png", placing(atlas, page)],
    ["mirroring.png", mirroring(atlas, page)],
    ["edges.png", edges(atlas, page)],
  ]);
}

/** The untrimmed frame, the pixels that are on the page within it, and the origin. */
function placing(atlas: Atlas, page: Pixels): Pixels {
  const { rect, inset, size, origin } = atlas.frames[FRAME] as Atlas["frames"][string];
  const out = sheetOfPaper(size.w + 8, size.h + 8);
  lay(out, scaled(crop(page, rect), ZOOM), (4 + inset.x) * ZOOM, (4 + inset.y) * ZOOM, true);
  outline(out, { x: 4, y: 4, ...size }, INK, 2);
  outline(out, { x: 4 + inset.x, y: 4 + inset.y, w: rect.w, h: rect.h }, LAPIS, 1);
  cross(out, 4 + origin.x, 4 + origin.y);
  return out;
}

/** The same frame and its mirror picture, the origin being where the mirror stands. */
function mirroring(atlas: Atlas, page: Pixels): Pixels {
  const { rect, inset, size, origin } = atlas.frames[FRAME] as Atlas["frames"][string];
  const far = 2 * size.w + 4;
  const out = sheetOfPaper(far + 8, size.h + 8);
  const art = scaled(crop(page, rect), ZOOM);
  lay(out, art, (4 + inset.x) * ZOOM, (4 + inset.y) * ZOOM, true);
  const x = 8 + size.w + origin.x; // where the second one stands
  lay(out, mirrored(art), Math.round((x + origin.x - inset.x - rect.w) * ZOOM), (4 + inset.y) * ZOOM, true);
  for (const at of [4 + origin.x, x]) {
    for (let y = 0; y < out.height; y += 4) block(out, Math.round(at * ZOOM), y, 1, 2, LAPIS);
    cross(out, at, 4 + origin.y);
  }
  return out;
}

/** The top of a hat on its page with its repeated edge, and where the frame's own rectangle is. */
function edges(atlas: Atlas, page: Pixels): Pixels {
  const { rect } = atlas.frames[FRAME] as Atlas["frames"][string];
  const around = { x: rect.x + 4, y: Math.max(0, rect.y - 3), w: 16, h: 12 };
  const out = sheetOfPaper(16, 12, ZOOM * 2);
  lay(out, scaled(crop(page, around), ZOOM * 2), 0, 0, true);
  outline(out, { x: rect.x - around.x, y: rect.y - around.y, w: 40, h: 40 }, LAPIS, 2, ZOOM * 2);
  return out;
}

function sheetOfPaper(w: number, h: number, zoom = ZOOM): Pixels {
  const out = clearPixels(Math.round(w * zoom), Math.round(h * zoom));
  block(out, 0, 0, out.width, out.height, PAPER);
  return out;
}

function block(out: Pixels, x: number, y: number, w: number, h: number, hex: string): void {
  for (let row = y; row < y + h; row++) for (let column = x; column < x + w; column++) dot(out, column, row, hex);
}

function outline(out: Pixels, { x, y, w, h }: Rect, hex: string, thick: number, zoom = ZOOM): void {
  const [left, top, wide, high] = [x, y, w, h].map((value) => Math.round(value * zoom)) as [number, number, number, number];
  block(out, left - thick, top - thick, wide + 2 * thick, thick, hex);
  block(out, left - thick, top + high, wide + 2 * thick, thick, hex);
  block(out, left - thick, top, thick, high, hex);
  block(out, left + wide, top, thick, high, hex);
}

function cross(out: Pixels, x: number, y: number): void {
  const [cx, cy] = [Math.round(x * ZOOM), Math.round(y * ZOOM)];
  block(out, cx - 14, cy - 1, 28, 3, SAFFRON);
  block(out, cx - 1, cy - 14, 3, 28, SAFFRON);
}
