/** A plate on parts: a lamp in a hand, and the same under its host, mirrored. */
import type { Atlas } from "@caravan/core/atlas";
import { crop, lay, mirrored, type Pixels, scaled } from "@caravan/core/raster";
import { createParts } from "../../packages/player/src/parts";
import { block, cross, INK, LAPIS, label, plate, SAFFRON, ZOOM } from "./plate";

export function hanging(atlas: Atlas, page: Pixels): Pixels {
  // The file as a game reads it.
  const partsOf = createParts(atlas as Parameters<typeof createParts>[0]);
  const step = atlas.clips.halt?.steps[4];
  const host = step && atlas.frames[step.frame];
  if (!step || !host) throw new Error("The demo's halt is gone.");
  const hand = host.points?.hand as { x: number; y: number };
  const out = plate(2 * host.size.w + 40, host.size.h + 14);
  for (const [mirror, x] of [
    [false, 10 + host.origin.x],
    [true, 30 + host.size.w + host.origin.x],
  ] as const) {
    const y = 4 + host.origin.y;
    const draw = (name: string, dx: number, dy: number, isMirrored: boolean) => {
      const { rect, inset, origin } = atlas.frames[name] as Atlas["frames"][string];
      const art = scaled(crop(page, rect), ZOOM);
      const left = isMirrored ? origin.x - inset.x - rect.w : inset.x - origin.x;
      lay(
        out,
        isMirrored ? mirrored(art) : art,
        Math.round((x + dx + left) * ZOOM),
        Math.round((y + dy + inset.y - origin.y) * ZOOM),
        true,
      );
    };
    const parts = partsOf({ clip: "halt", step: 4, mirror, visible: true, facing: "s", ms: 330 });
    const drawParts = () => {
      for (const part of parts) draw(part.frame, part.x, part.y, part.mirror);
    };
    if (mirror) drawParts();
    draw(step.frame, 0, 0, mirror);
    if (!mirror) drawParts();
    cross(out, x, y);
    const at = [x + (mirror ? -1 : 1) * (hand.x - host.origin.x), y + hand.y - host.origin.y].map((each) => Math.round(each * ZOOM)) as [
      number,
      number,
    ];
    block(out, at[0] - 5, at[1] - 5, 11, 11, INK);
    block(out, at[0] - 3, at[1] - 3, 7, 7, SAFFRON);
    if (!mirror) label(out, "ring on hand", at[0] + 16, at[1] - 8, LAPIS);
    label(out, mirror ? "under, mirrored" : "over", x * ZOOM, (host.size.h + 7) * ZOOM, INK, true);
  }
  return out;
}
