/**
 * Draws a contact sheet for people: the steps of every clip in order with their durations, then frames in no clip, large enough to judge.
 *
 * Units: pixels of the picture; frames are enlarged by one whole factor. Cost: O(pixels of the picture).
 */
import type { AtlasClip } from "../atlas";
import type { NamedFile, PngCodec } from "../codec";
import { contactPath } from "../delivery-plan";
import { fittingText, LETTER, letter } from "../lettering";
import { counted } from "../model";
import { clearPixels, lay, type Pixels, rgbOf, scaled } from "../raster";
import { type Cells, cellsFor, inCell } from "./cells";
import type { Contents, FrameToDeliver } from "./contents";
import { blendedFrame } from "./frame-layers";

const PAPER = rgbOf("#f7f2e8");
const INK = rgbOf("#221f1a");
const MUTED = rgbOf("#6a6152");
const LAPIS = rgbOf("#23557a");
/** What art is judged on, and the ground line on it. */
const GROUND = rgbOf("#918f8b");
const GROUND_LINE = rgbOf("#7b7975");

const WIDTH = 1200; // px, unless one frame is wider
const MARGIN = 24;
const GAP = 20;
/** Around a cell on its panel. */
const PAD = 6;
/** A usual frame is enlarged to about this height. */
const SEEN = 96;
const LARGEST_ZOOM = 6;
/** Pages are parted below this height: what programs show without trouble. */
const TALLEST = 4000;
const TEXT = 2; // scale of its letters
const LINE = LETTER.h * TEXT + 4;
const TITLE_LINE = LETTER.h * 3 + 10;

/** A strip of the sheet, drawn once its page is known. */
interface Band {
  readonly height: number;
  /** Whether it is a heading, which is never last on a page. */
  readonly heading: boolean;
  draw(page: Pixels, y: number): void;
}

interface Cell {
  readonly frame: FrameToDeliver;
  readonly labels: readonly { readonly text: string; readonly colour: typeof INK }[];
}

/** One PNG, or several if it would be too tall. `title` is its heading, `stem` begins the file names. */
export function contactSheet({ frames: apart, clips, layers }: Contents, title: string, stem: string, png: PngCodec): NamedFile[] {
  const frames = apart.map((frame) => blendedFrame(frame, layers));
  const zoom = zoomFor(frames);
  const width = Math.max(WIDTH, 2 * (MARGIN + PAD) + zoom * frames.reduce((most, { rect }) => Math.max(most, rect.w), 1));
  const byName = new Map(frames.map((frame) => [frame.name, frame]));
  const shown = new Set(clips.flatMap(([, { steps }]) => steps.map(({ frame }) => frame)));
  const idle = frames.filter(({ name }) => !shown.has(name));
  const bands = [
    heading(title, `${counted(frames.length, "frame")} · ${counted(clips.length, "clip")}`, width),
    ...clips.flatMap(([name, clip]) => [
      heading(name, clipInWords(clip), width),
      ...rows(
        clip.steps.map(({ frame, ms, events }, k) => ({
          frame: byName.get(frame) as FrameToDeliver,
          labels: [{ text: `${k} · ${short(ms)} ms`, colour: INK }, ...(events ?? []).map((event) => ({ text: event, colour: LAPIS }))],
        })),
        zoom,
        width,
      ),
    ]),
    ...(idle.length === 0 ? [] : [heading("in no clip", counted(idle.length, "frame"), width)]),
    ...rows(
      idle.map((frame) => ({
        frame,
        labels: [
          { text: frame.name, colour: INK },
          { text: `${frame.rect.w} × ${frame.rect.h}`, colour: MUTED },
        ],
      })),
      zoom,
      width,
    ),
  ];
  const pages = parted(bands);
  return pages.map((page, k) => ({
    path: contactPath(stem, k, pages.length),
    bytes: png.encode(drawn(page, width)),
  }));
}

/** The factor at which a usual frame is seen well. */
function zoomFor(frames: readonly FrameToDeliver[]): number {
  const sides = frames.map(({ rect }) => Math.max(rect.w, rect.h)).sort((a, b) => a - b);
  const usual = sides[sides.length >> 1] ?? 1;
  return Math.max(1, Math.min(LARGEST_ZOOM, Math.round(SEEN / usual)));
}

function clipInWords({ steps, playback, times }: AtlasClip): string {
  const all = steps.map(({ ms }) => ms);
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const total = all.reduce((sum, ms) => sum + ms, 0);
  const pace = least === most ? `${short(least)} ms a step, ${short(1000 / least)} fps` : `${short(least)} to ${short(most)} ms a step`;
  const rounds = times > 0 && playback !== "once" ? `, ${times} times` : "";
  const way = { once: "once", loop: "in a loop", pingpong: "ping-pong" }[playback];
  return `${steps.length} ${steps.length === 1 ? "step" : "steps"} · ${pace} · ${short(total)} ms in all · ${way}${rounds}`;
}

function short(value: number): string {
  return String(Math.round(value * 100) / 100);
}

function heading(name: string, facts: string, width: number): Band {
  return {
    height: GAP + TITLE_LINE + LINE,
    heading: true,
    draw(page, y) {
      letter(page, fittingText(name, width - 2 * MARGIN, 3), MARGIN, y + GAP, INK, 3);
      letter(page, fittingText(facts, width - 2 * MARGIN, TEXT), MARGIN, y + GAP + TITLE_LINE, MUTED, TEXT);
    },
  };
}

/** Cells side by side, as many a row as there is room for; all of one size, their origins at one height. */
function rows(cells: readonly Cell[], zoom: number, width: number): Band[] {
  if (cells.length === 0) return [];
  const equal = cellsFor(cells.map(({ frame }) => frame));
  const panel = { w: equal.size.w * zoom + 2 * PAD, h: equal.size.h * zoom + 2 * PAD };
  const wanted = Math.max(...cells.flatMap(({ labels }) => labels.map(({ text }) => Math.min(18, [...text].length))));
  const column = Math.max(panel.w, wanted * LETTER.w * TEXT) + GAP;
  const across = Math.max(1, Math.floor((width - 2 * MARGIN + GAP) / column));
  const lines = Math.max(...cells.map(({ labels }) => labels.length));
  const bands: Band[] = [];
  for (let from = 0; from < cells.length; from += across) {
    const row = cells.slice(from, from + across);
    bands.push({
      height: panel.h + 6 + lines * LINE + GAP,
      heading: false,
      draw(page, y) {
        for (const [k, { frame, labels }] of row.entries()) {
          const x = MARGIN + k * column;
          drawPanel(page, frame, equal, { x, y, ...panel }, zoom);
          for (const [at, { text, colour }] of labels.entries())
            letter(page, fittingText(text, column - GAP, TEXT), x, y + panel.h + 6 + at * LINE, colour, TEXT);
        }
      },
    });
  }
  return bands;
}

function drawPanel(page: Pixels, frame: FrameToDeliver, cells: Cells, at: { x: number; y: number; w: number; h: number }, zoom: number) {
  fill(page, at, GROUND);
  const feet = Math.round((frame.origin.y + cells.offset(frame).y) * zoom) + PAD;
  if (feet >= 0 && feet < at.h) fill(page, { x: at.x, y: at.y + feet, w: at.w, h: 1 }, GROUND_LINE);
  lay(page, scaled(inCell(frame, cells), zoom), at.x + PAD, at.y + PAD, true);
}

/** Fills a rectangle of the picture with one opaque colour. */
function fill({ width, bytes }: Pixels, { x, y, w, h }: { x: number; y: number; w: number; h: number }, [r, g, b]: typeof INK): void {
  // Whole pixels at once: a sheet has millions.
  const pixels = new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.length >> 2);
  const [colour = 0] = new Uint32Array(Uint8Array.of(r, g, b, 255).buffer);
  for (let row = y; row < y + h; row++) pixels.fill(colour, row * width + x, row * width + x + w);
}

/** Bands page by page; a heading stays with what follows. */
function parted(bands: readonly Band[]): Band[][] {
  const pages: Band[][] = [[]];
  let height = 0;
  for (const [k, band] of bands.entries()) {
    const next = bands[k + 1];
    const needed = band.height + (band.heading && next ? next.height : 0);
    if (height > 0 && height + needed > TALLEST) {
      pages.push([]);
      height = 0;
    }
    pages.at(-1)?.push(band);
    height += band.height;
  }
  return pages;
}

function drawn(bands: readonly Band[], width: number): Pixels {
  const height = bands.reduce((sum, band) => sum + band.height, 0) + MARGIN;
  const page = clearPixels(width, height);
  fill(page, { x: 0, y: 0, w: width, h: height }, PAPER);
  let y = 0;
  for (const band of bands) {
    band.draw(page, y);
    y += band.height;
  }
  return page;
}
