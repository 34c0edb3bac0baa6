/** Plates on where a frame is drawn: turned, facing, with y up, crisp. */
import type { Atlas } from "@caravan/core/atlas";
import { clearPixels, crop, lay, type Pixels, scaled, turnClockwise } from "@caravan/core/raster";
import { block, cross, INK, LAPIS, LINE, label, MUTED, outline, plate, SAFFRON, stand, ZOOM } from "./plate";

const FRAME = "porter-walk/20";

/** The same frame as stored on a page, and as drawn by the game. */
export function turned(atlas: Atlas, page: Pixels): Pixels {
  const { rect } = atlas.frames[FRAME] as Atlas["frames"][string];
  const art = crop(page, rect);
  const out = plate(rect.h + rect.w + 44, rect.h + 12);
  lay(out, scaled(turnClockwise(art), ZOOM), 4 * ZOOM, 4 * ZOOM, true);
  outline(out, { x: 4, y: 4, w: rect.h, h: rect.w }, LAPIS, 2);
  label(out, "on the page", 4 * ZOOM, (6 + rect.w) * ZOOM, LAPIS);
  label(out, `rect ${rect.h} × ${rect.w}`, 4 * ZOOM, (6 + rect.w) * ZOOM + LINE, MUTED);
  lay(out, scaled(art, ZOOM), (24 + rect.h) * ZOOM, 4 * ZOOM, true);
  label(out, "in the game", (24 + rect.h) * ZOOM, (5 + rect.h) * ZOOM, MUTED);
  return out;
}

const PLACES = { nw: [0, 0], n: [1, 0], ne: [2, 0], w: [0, 1], e: [2, 1], sw: [0, 2], s: [1, 2], se: [2, 2] } as const;

/** One step of an action in all its facings, each where it looks. */
export function facings(atlas: Atlas, page: Pixels): Pixels {
  const zoom = 3;
  const cell = { w: 150, h: 190 };
  const out = plate(3 * cell.w, 3 * cell.h, 1);
  for (const [facing, [column, row]] of Object.entries(PLACES)) {
    const clip = atlas.actions.walk?.facings[facing as keyof typeof PLACES]?.clip as string;
    const [x, y] = [(column + 0.5) * cell.w, row * cell.h + 158];
    stand(out, atlas, page, atlas.clips[clip]?.steps[2]?.frame as string, x, y, zoom);
    label(out, facing, x, y + 10, LAPIS, true);
  }
  label(out, "walk", 1.5 * cell.w, 1.5 * cell.h - LINE, INK, true);
  label(out, "8 facings", 1.5 * cell.w, 1.5 * cell.h, MUTED, true);
  return out;
}

/** How far the origin is from the top, and from the bottom. */
export function upwards(atlas: Atlas, page: Pixels): Pixels {
  const { size, origin } = atlas.frames[FRAME] as Atlas["frames"][string];
  const side = 26;
  const out = plate(size.w + 2 * side, size.h + 8);
  outline(out, { x: side, y: 4, ...size }, INK, 2);
  stand(out, atlas, page, FRAME, (side + origin.x) * ZOOM, (4 + origin.y) * ZOOM, ZOOM);
  cross(out, side + origin.x, 4 + origin.y);
  const measure = (x: number, from: number, to: number, words: readonly string[], hex: string) => {
    block(out, x * ZOOM, Math.round(from * ZOOM), 2, Math.round((to - from) * ZOOM), hex);
    for (const end of [from, to]) block(out, x * ZOOM - 6, Math.round(end * ZOOM) - 1, 14, 2, hex);
    for (const [k, word] of words.entries()) label(out, word, (x - 11) * ZOOM, (4 + size.h / 2) * ZOOM + k * LINE, hex, true);
  };
  measure(side - 3, 4, 4 + origin.y, ["y down", String(origin.y)], LAPIS);
  const right = side + size.w + 3;
  block(out, right * ZOOM, Math.round((4 + origin.y) * ZOOM), 2, Math.round((size.h - origin.y) * ZOOM), SAFFRON);
  for (const [k, word] of ["y up", `${size.h} - ${origin.y}`, `= ${size.h - origin.y}`].entries())
    label(out, word, (right + 11) * ZOOM, (4 + size.h / 2) * ZOOM + k * LINE, INK, true);
  return out;
}

/** A head enlarged by whole pixels, and smoothed. */
export function crisp(atlas: Atlas, page: Pixels): Pixels {
  const { rect } = atlas.frames[FRAME] as Atlas["frames"][string];
  const zoom = 2 * ZOOM;
  const head = crop(page, { x: rect.x, y: rect.y, w: rect.w, h: 18 });
  const out = plate(2 * rect.w * zoom + 72, 18 * zoom + 72, 1);
  for (const [k, [picture, word]] of (
    [
      [scaled(head, zoom), "nearest: crisp"],
      [smooth(head, zoom), "linear: blurred"],
    ] as const
  ).entries()) {
    const x = 24 + k * (rect.w * zoom + 24);
    lay(out, picture, x, 24, true);
    label(out, word, x, 24 + 18 * zoom + 14, k === 0 ? LAPIS : MUTED);
  }
  return out;
}

/** Between the middles of four pixels, as a graphics processor does; colours weighted by alpha. */
function smooth(art: Pixels, zoom: number): Pixels {
  const out = clearPixels(art.width * zoom, art.height * zoom);
  const inside = (value: number, most: number) => Math.max(0, Math.min(most - 1, value));
  for (let y = 0; y < out.height; y++)
    for (let x = 0; x < out.width; x++) {
      const [u, v] = [(x + 0.5) / zoom - 0.5, (y + 0.5) / zoom - 0.5];
      const sum = [0, 0, 0, 0];
      for (const [dx, dy] of [
        [0, 0],
        [1, 0],
        [0, 1],
        [1, 1],
      ] as const) {
        const [left, top] = [Math.floor(u) + dx, Math.floor(v) + dy];
        const weight = (1 - Math.abs(u - left)) * (1 - Math.abs(v - top));
        const k = (inside(top, art.height) * art.width + inside(left, art.width)) * 4;
        const alpha = weight * (art.bytes[k + 3] as number);
        for (let channel = 0; channel < 3; channel++) sum[channel] = (sum[channel] as number) + alpha * (art.bytes[k + channel] as number);
        sum[3] = (sum[3] as number) + alpha;
      }
      const alpha = sum[3] as number;
      if (alpha > 0)
        out.bytes.set([...sum.slice(0, 3).map((each) => Math.round(each / alpha)), Math.round(alpha)], (y * out.width + x) * 4);
    }
  return out;
}
