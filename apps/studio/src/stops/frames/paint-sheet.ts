import type { Rect } from "@caravan/core/model";
import type { Picture } from "../../project/pictures";
import type { SheetScene } from "./sheet-scene";
import type { SheetView } from "./sheet-view";

/** Colours from the theme's tokens. */
export interface SheetColours {
  readonly grid: string;
  readonly now: string;
  readonly onNow: string;
  readonly trouble: string;
  readonly ink: string;
  readonly font: string;
}

export function coloursFrom(element: Element): SheetColours {
  const style = getComputedStyle(element);
  // Tokens hold light-dark(), which a canvas cannot read; a colour property resolves them.
  const token = (name: string) => {
    const probe = document.createElement("i");
    probe.style.color = `var(${name})`;
    element.append(probe);
    const { color } = getComputedStyle(probe);
    probe.remove();
    return color;
  };
  return {
    grid: token("--lapis"),
    now: token("--now"),
    onNow: token("--on-now"),
    trouble: token("--brick"),
    ink: token("--ink"),
    font: style.fontFamily,
  };
}

/** Puts a scene on a canvas whose coordinates are CSS pixels. */
export function paintSheet(
  context: CanvasRenderingContext2D,
  scene: SheetScene & { readonly draft: Rect | null },
  view: SheetView,
  picture: Pick<Picture, "bitmap" | "overview"> | null,
  colours: SheetColours,
): void {
  const place = ({ x, y, w, h }: Rect): Rect => ({
    x: view.x + x * view.zoom,
    y: view.y + y * view.zoom,
    w: w * view.zoom,
    h: h * view.zoom,
  });
  const sheet = place(scene.sheet);
  if (picture) {
    const { bitmap, overview } = picture;
    context.imageSmoothingEnabled = view.zoom < 1;
    const reduced = overview && view.zoom * overview.reduction <= 1 ? overview.bitmap : bitmap;
    context.drawImage(reduced, sheet.x, sheet.y, sheet.w, sheet.h);
  }
  for (const rect of scene.leftOver) hatch(context, place(rect), colours.trouble, 5);
  for (const rect of scene.empty) hatch(context, place(rect), colours.grid, 7);
  for (const rect of scene.dropped) crossOut(context, place(rect), colours.trouble);
  context.lineWidth = 1;
  context.strokeStyle = colours.grid;
  context.globalAlpha = 0.75;
  outline(context, [...scene.frames, ...scene.empty, ...scene.dropped].map(place));
  context.globalAlpha = 1;
  if (scene.row) frameIn(context, place(scene.row), colours.now, 2);
  for (const { rect, number } of scene.picked) {
    const at = place(rect);
    frameIn(context, at, colours.now, 2);
    badge(context, at, String(number), colours);
  }
  if (scene.draft) frameIn(context, place(scene.draft), colours.now, 2);
  if (scene.cursor) {
    const { x, y, w, h } = place(scene.cursor);
    context.setLineDash([4, 3]);
    frameIn(context, { x: x - 2, y: y - 2, w: w + 4, h: h + 4 }, colours.ink, 2);
    context.setLineDash([]);
  }
}

function outline(context: CanvasRenderingContext2D, rects: readonly Rect[]): void {
  context.beginPath();
  for (const { x, y, w, h } of rects) context.rect(Math.round(x) + 0.5, Math.round(y) + 0.5, Math.round(w), Math.round(h));
  context.stroke();
}

function frameIn(context: CanvasRenderingContext2D, { x, y, w, h }: Rect, colour: string, width: number): void {
  context.strokeStyle = colour;
  context.lineWidth = width;
  context.strokeRect(x + 0.5, y + 0.5, w, h);
}

/** Slanting lines: nothing is drawn here, or nothing belongs here. */
function hatch(context: CanvasRenderingContext2D, { x, y, w, h }: Rect, colour: string, pitch: number): void {
  context.save();
  context.beginPath();
  context.rect(x, y, w, h);
  context.clip();
  context.strokeStyle = colour;
  context.globalAlpha = 0.45;
  context.lineWidth = 1;
  context.beginPath();
  for (let k = -h; k < w; k += pitch) {
    context.moveTo(x + k, y + h);
    context.lineTo(x + k + h, y);
  }
  context.stroke();
  context.restore();
}

function crossOut(context: CanvasRenderingContext2D, { x, y, w, h }: Rect, colour: string): void {
  context.strokeStyle = colour;
  context.lineWidth = 2;
  context.beginPath();
  context.moveTo(x, y);
  context.lineTo(x + w, y + h);
  context.moveTo(x + w, y);
  context.lineTo(x, y + h);
  context.stroke();
}

function badge(context: CanvasRenderingContext2D, { x, y, w, h }: Rect, text: string, colours: SheetColours): void {
  if (w < 18 || h < 16) return;
  context.font = `600 12px ${colours.font}`;
  const width = context.measureText(text).width + 8;
  context.fillStyle = colours.now;
  context.fillRect(x + w - width, y, width + 1, 16);
  context.fillStyle = colours.onNow;
  context.textBaseline = "middle";
  context.fillText(text, x + w - width + 4, y + 8.5);
}
