/** The pictures of docs/wiring: the demo's own delivery, enlarged, with lines that show what the numbers mean. */
import { type Atlas, readAtlas } from "@caravan/core/atlas";
import { deliver } from "@caravan/core/deliver";
import type { Delivery, Rect } from "@caravan/core/model";
import { crop, lay, mirrored, type Pixels, scaled } from "@caravan/core/raster";
import { pngCodec } from "../../packages/cli/src/png";
import { openProject } from "../../packages/cli/src/project";
import { block, cross, INK, LAPIS, LINE, label, outline, plate, SAFFRON, ZOOM } from "./plate";
import { crisp, facings, turned, upwards } from "./wiring-in-space";
import { carrying, endings, ruled, stepsInTime } from "./wiring-in-time";
import { hanging } from "./wiring-parts";

const FRAME = "porter-walk/20";

/** Every picture by its file name. */
export function wiringPictures(projectFolder: string): Map<string, Pixels> {
  const { project, art } = openProject(projectFolder);
  const png = pngCodec();
  const [delivery] = project.deliveries as [Delivery];
  const { files } = deliver(project, delivery, art, png);
  const atlas = readAtlas((files.find(({ path }) => path.endsWith(".atlas.json")) as (typeof files)[number]).bytes, "atlas");
  const image = atlas.pages[0]?.image as string;
  const page = png.decode((files.find(({ path }) => path === image) as (typeof files)[number]).bytes, image);
  return new Map([
    ["placing.png", placing(atlas, page)],
    ["mirroring.png", mirroring(atlas, page)],
    ["marks.png", marked(atlas, page)],
    ["parts.png", hanging(atlas, page)],
    ["edges.png", edges(atlas, page)],
    ["turned.png", turned(atlas, page)],
    ["facings.png", facings(atlas, page)],
    ["y-up.png", upwards(atlas, page)],
    ["crisp.png", crisp(atlas, page)],
    ["steps.png", stepsInTime(atlas, page)],
    ["carrying.png", carrying(atlas, page)],
    ["endings.png", endings(atlas, page)],
    ["rules.png", ruled(atlas, page)],
  ]);
}

/** The untrimmed frame, the pixels that are on the page within it, and the origin. */
function placing(atlas: Atlas, page: Pixels): Pixels {
  const { rect, inset, size, origin } = atlas.frames[FRAME] as Atlas["frames"][string];
  const out = plate(size.w + 8, size.h + 8);
  lay(out, scaled(crop(page, rect), ZOOM), (4 + inset.x) * ZOOM, (4 + inset.y) * ZOOM, true);
  outline(out, { x: 4, y: 4, ...size }, INK, 2);
  outline(out, { x: 4 + inset.x, y: 4 + inset.y, w: rect.w, h: rect.h }, LAPIS, 1);
  cross(out, 4 + origin.x, 4 + origin.y);
  return out;
}

/** A frame and its mirror image, mirrored about the origin. */
function mirroring(atlas: Atlas, page: Pixels): Pixels {
  const { rect, inset, size, origin } = atlas.frames[FRAME] as Atlas["frames"][string];
  const far = 2 * size.w + 4;
  const out = plate(far + 8, size.h + 8);
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

/** The figure and its mirror, each with its box and its point. */
function marked(atlas: Atlas, page: Pixels): Pixels {
  const frame = atlas.frames[FRAME] as Atlas["frames"][string];
  const { size, origin } = frame;
  const box = frame.boxes?.body?.[0] as Rect;
  const point = frame.points?.brow as { x: number; y: number };
  const out = mirroring(atlas, page);
  for (const [at, side] of [
    [4 + origin.x, 1],
    [8 + size.w + origin.x, -1],
  ] as const) {
    const left = side === 1 ? at + box.x - origin.x : at - (box.x - origin.x) - box.w;
    outline(out, { ...box, x: left, y: 4 + box.y }, LAPIS, 3);
    label(out, "body", (left + box.w) * ZOOM + 8, (4 + box.y) * ZOOM + 2 * LINE, LAPIS);
    const [x, y] = [Math.round((at + side * (point.x - origin.x)) * ZOOM), Math.round((4 + point.y) * ZOOM)];
    block(out, x - 5, y - 5, 11, 11, INK);
    block(out, x - 3, y - 3, 7, 7, SAFFRON);
    label(out, "brow", x + 10 * ZOOM, y - 14, INK);
  }
  return out;
}

/** The top of a hat on its page with its extruded edge, and the frame's own rectangle. */
function edges(atlas: Atlas, page: Pixels): Pixels {
  const { rect } = atlas.frames[FRAME] as Atlas["frames"][string];
  const around = { x: rect.x + 4, y: Math.max(0, rect.y - 3), w: 16, h: 12 };
  const out = plate(16, 12, ZOOM * 2);
  lay(out, scaled(crop(page, around), ZOOM * 2), 0, 0, true);
  outline(out, { x: rect.x - around.x, y: rect.y - around.y, w: 40, h: 40 }, LAPIS, 2, ZOOM * 2);
  return out;
}
