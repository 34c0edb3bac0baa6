/**
 * Turns single frames into images that the browser caches by URL. With a canvas for each, the browser would composite a layer for each at
 * every refresh, which takes a third of the available time for a few dozen.
 */

import { useEffect, useState } from "react";
import { useAllPictures } from "../project/pictures";
import { t } from "../ui/words";
import { paintStill, type Still, shownLayers } from "./draw-frame";
import { useHiddenLayers } from "./hidden-layers";

/** More than any screen shows at once. */
const MOST = 3000;

const urls = new Map<string, string>();

/** The URL of a still drawn into a square of `edge` device pixels, with the visible layers; null until it is ready. */
export function useStillUrl(still: Still, edge: number): string | null {
  const hidden = useHiddenLayers((state) => state.hidden);
  const layers = shownLayers(still, hidden);
  const ready = useAllPictures(layers.map(({ look }) => look));
  const { rect, turned, size, inset, scale } = still;
  const from = layers.map(({ look, blend }) => `${blend} ${look.key}`).join("\n");
  const key = `${from} ${rect.x} ${rect.y} ${rect.w} ${rect.h} ${turned} ${size.w} ${size.h} ${inset.x} ${inset.y} ${scale} ${edge}`;
  const [made, setMade] = useState<{ readonly key: string; readonly url: string } | null>(null);
  const known = urls.get(key);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that the still does
  useEffect(() => {
    if (known || !ready) return;
    let wanted = true;
    void drawnUrl(still, edge).then((url) => {
      keep(key, url);
      if (wanted) setMade({ key, url });
    });
    return () => {
      wanted = false;
    };
  }, [key, known, ready, edge]);
  // The one before stays until the next is there: a picture that changes its size does not blink.
  return known ?? made?.url ?? null;
}

async function drawnUrl(still: Still, edge: number): Promise<string> {
  const canvas = new OffscreenCanvas(edge, edge);
  const context = canvas.getContext("2d");
  if (!context) throw new Error(t("This browser provides no canvas to draw on."));
  const scale = stillScale(still.size, edge);
  const left = Math.round((edge - still.size.w * scale) / 2);
  const top = Math.round((edge - still.size.h * scale) / 2);
  context.imageSmoothingEnabled = false;
  paintStill(context, still, left, top, scale);
  return URL.createObjectURL(await canvas.convertToBlob({ type: "image/png" }));
}

function keep(key: string, url: string): void {
  urls.set(key, url);
  const oldest = urls.size > MOST ? urls.keys().next().value : undefined;
  if (oldest === undefined) return;
  URL.revokeObjectURL(urls.get(oldest) as string);
  urls.delete(oldest);
}

/** The largest whole-number scale that fits, or a fraction for anything larger than the square. */
function stillScale({ w, h }: { readonly w: number; readonly h: number }, edge: number): number {
  const fit = Math.min(edge / w, edge / h);
  return fit >= 1 ? Math.floor(fit) : fit;
}
