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
  readonly paper: string;
  readonly font: string;
}

let known: { readonly theme: string; readonly colours: SheetColours } | null = null;

/**
 * The colours of the current theme. Resolving them needs a new element and a layout, so it is done once per theme; the tokens are in the
 * theme's name, because the first drawing may precede the style sheet.
 */
export function coloursFrom(element: Element): SheetColours {
  const tokens = getComputedStyle(element);
  const dark = matchMedia("(prefers-color-scheme: dark)").matches;
  const theme = [document.documentElement.dataset.theme, dark, tokens.getPropertyValue("--lapis"), tokens.getPropertyValue("--now")].join(
    " ",
  );
  if (known?.theme !== theme) known = { theme, colours: askedColours(element) };
  return known.colours;
}

function askedColours(element: Element): SheetColours {
  const probe = document.createElement("i");
  element.append(probe);
  // Tokens hold light-dark(), which a canvas cannot read; a colour property resolves them.
  const token = (name: string) => {
    probe.style.color = `var(${name})`;
    return getComputedStyle(probe).color;
  };
  const colours = {
    grid: token("--lapis"),
    now: token("--now"),
    onNow: token("--on-now"),
    trouble: token("--brick"),
    ink: token("--ink"),
    paper: token("--raised"),
    font: getComputedStyle(element).fontFamily,
  };
  probe.remove();
  return colours;
}

/** Puts a scene on a canvas whose coordinates are CSS pixels. */
export function paintSheet(
  context: CanvasRenderingContext2D,
  scene: SheetScene & { readonly part: Rect | null; readonly draft: Rect | null },
  view: SheetView,
  picture: Pick<Picture, "bitmap" | "overview"> | null,
  colours: SheetColours,
): void {
  const place = ({ x, y, w, h }: Rect): Rect => ({
    x: view.x + x * view.scale,
    y: view.y + y * view.scale,
    w: w * view.scale,
    h: h * view.scale,
  });
  const sheet = place(scene.sheet);
  if (picture) {
    const { bitmap, overview } = picture;
    context.imageSmoothingEnabled = view.zoom < 1;
    const reduced = overview && view.scale * overview.reduction <= 1 ? overview.bitmap : bitmap;
    context.drawImage(reduced, sheet.x, sheet.y, sheet.w, sheet.h);
  }
  hatch(context, scene.leftOver.map(place), view, colours.trouble, 5);
  hatch(context, scene.empty.map(place), view, colours.grid, 7);
  for (const rect of scene.dropped) crossOut(context, place(rect), colours.trouble);
  context.lineWidth = 1;
  context.strokeStyle = colours.grid;
  context.globalAlpha = 0.75;
  outline(context, [...scene.frames, ...scene.empty, ...scene.dropped].map(place));
  context.globalAlpha = 1;
  for (const { rect, number, chosen } of scene.regions) {
    const at = place(rect);
    context.setLineDash([9, 4]);
    frameIn(context, at, chosen ? colours.now : colours.grid, 2);
    context.setLineDash([]);
    tag(context, at, String(number), chosen ? colours.now : colours.grid, chosen ? colours.onNow : colours.paper, colours.font);
  }
  if (scene.row) frameIn(context, place(scene.row), colours.now, 2);
  for (const { rect, number } of scene.picked) {
    const at = place(rect);
    frameIn(context, at, colours.now, 2);
    badge(context, at, String(number), colours);
  }
  if (scene.part) frameIn(context, place(scene.part), colours.grid, 2);
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

/** Slanting lines: nothing is drawn here, or nothing belongs here. They move with the sheet. One fill for all, of thousands too. */
function hatch(context: CanvasRenderingContext2D, rects: readonly Rect[], view: SheetView, colour: string, pitch: number): void {
  if (rects.length === 0) return;
  const slant = context.createPattern(slantTile(colour, pitch), "repeat");
  if (!slant) return;
  slant.setTransform(new DOMMatrix().translate(view.x, view.y).scale(1 / TILE_DENSITY));
  context.save();
  context.globalAlpha = 0.45;
  context.fillStyle = slant;
  context.beginPath();
  for (const { x, y, w, h } of rects) context.rect(x, y, w, h);
  context.fill();
  context.restore();
}

const TILE_DENSITY = 2; // drawn finer than it is shown, for screens of high density
const tiles = new Map<string, OffscreenCanvas>();

function slantTile(colour: string, pitch: number): OffscreenCanvas {
  const name = `${colour} ${pitch}`;
  const ready = tiles.get(name);
  if (ready) return ready;
  const side = pitch * TILE_DENSITY;
  const tile = new OffscreenCanvas(side, side);
  const context = tile.getContext("2d");
  if (context) {
    context.strokeStyle = colour;
    context.lineWidth = TILE_DENSITY;
    // Three lines, so that the tile's corners are drawn like its middle.
    for (const shift of [-side, 0, side]) {
      context.moveTo(shift - side, 2 * side);
      context.lineTo(shift + 2 * side, -side);
    }
    context.stroke();
  }
  tiles.set(name, tile);
  return tile;
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

/** A number at the top right of a frame that has room for it. */
function badge(context: CanvasRenderingContext2D, at: Rect, text: string, colours: SheetColours): void {
  if (at.w < 18 || at.h < 16) return;
  context.font = `600 12px ${colours.font}`;
  const width = context.measureText(text).width + 8;
  tag(context, { ...at, x: at.x + at.w - width }, text, colours.now, colours.onNow, colours.font);
}

/** A number on its own background, with its top-left corner at the rectangle's. */
function tag(context: CanvasRenderingContext2D, { x, y }: Rect, text: string, ground: string, ink: string, font: string): void {
  context.font = `600 12px ${font}`;
  context.fillStyle = ground;
  context.fillRect(x, y, context.measureText(text).width + 9, 16);
  context.fillStyle = ink;
  context.textBaseline = "middle";
  context.fillText(text, x + 4, y + 8.5);
}
