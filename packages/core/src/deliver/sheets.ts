/** Lays frames in equal cells: on one grid, one strip for each clip, or one picture for each frame. */
import { pagePath, singlePath, stripPath } from "../delivery-plan";
import { shiftedMarks } from "../marks";
import { CaravanError, type SheetLayout } from "../model";
import { t } from "../words";
import { arranged, cellsFor, drawCells, inCell, proposedColumns } from "./cells";
import type { Contents, FrameToDeliver } from "./contents";
import { layerPages, pixelsOn } from "./frame-layers";
import type { Copy, LaidFrame, LaidPage, Layout } from "./layout";

const UPRIGHT = { turned: false, mirrored: false, inset: { x: 0, y: 0 } } as const;

/** All frames on one picture: in tray order, or each clip on a row. Throws `picture-too-large`. */
export function gridSheet(contents: Contents, sheet: SheetLayout, stem: string): Layout {
  return sheet.rows === "clips" && contents.clips.length > 0 ? rowsOfClips(contents, sheet, stem) : inTrayOrder(contents, sheet, stem);
}

function inTrayOrder({ frames, layers }: Contents, { columns, marginPx, gapPx }: SheetLayout, stem: string): Layout {
  const cells = cellsFor(frames);
  const across = columns ?? proposedColumns(frames.length, cells.size);
  const image = pagePath(stem, 0, 1);
  const arrangement = arranged(frames.length, across, cells.size, marginPx, gapPx, image);
  const draw = (layer: number) => drawCells(arrangement, new Map(frames.map((frame, k) => [k, inCell(frame, cells, layer)])));
  const pixels = draw(0);
  const used = frames.length * cells.size.w * cells.size.h;
  return {
    pages: [{ image, pixels, occupancy: used / (pixels.width * pixels.height), ...layerPages(image, layers, draw) }],
    frames: frames.map((frame, k) => {
      const { x, y } = cells.offset(frame);
      return {
        ...UPRIGHT,
        name: frame.name,
        page: 0,
        rect: arrangement.rectOf(k),
        size: cells.size,
        origin: { x: frame.origin.x + x, y: frame.origin.y + y },
        marks: frame.marks && shiftedMarks(frame.marks, { x, y }),
        wholeOn: (layer) => inCell(frame, cells, layer),
      };
    }),
    copies: [],
    notes: [t("{across} columns of {w} × {h} px{unequal}.", { across, w: cells.size.w, h: cells.size.h, unequal: unequal(frames) })],
  };
}

/** Each clip on a row, step by step, even if a frame repeats; below them the frames in no clip. */
function rowsOfClips({ frames, clips, layers }: Contents, { marginPx, gapPx }: SheetLayout, stem: string): Layout {
  const cells = cellsFor(frames);
  const byName = new Map(frames.map((frame) => [frame.name, frame]));
  const columns = Math.max(...clips.map(([, { steps }]) => steps.length));
  const inClips = new Set(clips.flatMap(([, { steps }]) => steps.map(({ frame }) => frame)));
  const idle = frames.filter(({ name }) => !inClips.has(name));
  const shown: { readonly at: number; readonly frame: FrameToDeliver; readonly what: string | null }[] = [
    ...clips.flatMap(([clip, { steps }], row) =>
      steps.map(({ frame }, step) => ({
        at: row * columns + step,
        frame: byName.get(frame) as FrameToDeliver,
        what: t('step {step} of clip "{clip}"', { step, clip }),
      })),
    ),
    ...idle.map((frame, k) => ({ at: clips.length * columns + k, frame, what: null })),
  ];
  const image = pagePath(stem, 0, 1);
  const arrangement = arranged(clips.length * columns + idle.length, columns, cells.size, marginPx, gapPx, image);
  const draw = (layer: number) => {
    const places = shown.map(({ at, frame }) => [at, inCell(frame, cells, layer)] as const);
    return drawCells(arrangement, new Map(places));
  };
  const pixels = draw(0);
  const placed = new Map<string, LaidFrame>();
  const copies: Copy[] = [];
  for (const { at, frame, what } of shown) {
    const rect = arrangement.rectOf(at);
    const wholeOn = (layer: number) => inCell(frame, cells, layer);
    if (what !== null) copies.push({ what, page: 0, rect, wholeOn });
    if (placed.has(frame.name)) continue;
    const { x, y } = cells.offset(frame);
    const origin = { x: frame.origin.x + x, y: frame.origin.y + y };
    const marks = frame.marks && shiftedMarks(frame.marks, { x, y });
    placed.set(frame.name, { ...UPRIGHT, name: frame.name, page: 0, rect, size: cells.size, origin, marks, wholeOn });
  }
  const used = shown.length * cells.size.w * cells.size.h;
  return {
    pages: [{ image, pixels, occupancy: used / (pixels.width * pixels.height), ...layerPages(image, layers, draw) }],
    frames: [...placed.values()],
    copies,
    notes: [
      t("{clips} rows of clips, {columns} columns of {w} × {h} px{unequal}.", {
        clips: clips.length,
        columns,
        w: cells.size.w,
        h: cells.size.h,
        unequal: unequal(frames),
      }),
      ...(idle.length > 0
        ? [
            idle.length === 1
              ? t("{idle} frame is in no clip, below the rows of clips.", { idle: idle.length })
              : t("{idle} frames are in no clip, below the rows of clips.", { idle: idle.length }),
          ]
        : []),
    ],
  };
}

/** Each clip as a picture, each step as a cell, even if a frame repeats. Throws `nothing-picked` without clips. */
export function strips({ frames, clips, layers }: Contents, { marginPx, gapPx, run }: SheetLayout, stem: string): Layout {
  if (clips.length === 0)
    throw new CaravanError(
      "nothing-picked",
      t("strips"),
      t("There are no clips to make strips of."),
      t("Make a clip at Clips, or deliver a grid sheet."),
    );
  const byName = new Map(frames.map((frame) => [frame.name, frame]));
  const placed = new Map<string, LaidFrame>();
  const pages: LaidPage[] = [];
  const copies: Copy[] = [];
  for (const [page, [clip, { steps }]] of clips.entries()) {
    const shown = steps.map(({ frame }) => byName.get(frame) as FrameToDeliver);
    const cells = cellsFor(shown);
    const image = stripPath(stem, clip);
    const arrangement = arranged(shown.length, run === "along" ? shown.length : 1, cells.size, marginPx, gapPx, image);
    const draw = (layer: number) => drawCells(arrangement, new Map(shown.map((frame, k) => [k, inCell(frame, cells, layer)])));
    const pixels = draw(0);
    const occupancy = (shown.length * cells.size.w * cells.size.h) / (pixels.width * pixels.height);
    pages.push({ image, pixels, occupancy, ...layerPages(image, layers, draw) });
    for (const [step, frame] of shown.entries()) {
      const rect = arrangement.rectOf(step);
      const wholeOn = (layer: number) => inCell(frame, cells, layer);
      copies.push({ what: t('step {step} of clip "{clip}"', { step, clip }), page, rect, wholeOn });
      if (placed.has(frame.name)) continue;
      const { x, y } = cells.offset(frame);
      const origin = { x: frame.origin.x + x, y: frame.origin.y + y };
      const marks = frame.marks && shiftedMarks(frame.marks, { x, y });
      placed.set(frame.name, { ...UPRIGHT, name: frame.name, page, rect, size: cells.size, origin, marks, wholeOn });
    }
  }
  const idle = frames.length - placed.size;
  return {
    pages,
    frames: [...placed.values()],
    copies,
    notes:
      idle > 0
        ? [
            idle === 1
              ? t("{idle} frame is in no clip and on no strip.", { idle })
              : t("{idle} frames are in no clip and on no strip.", { idle }),
          ]
        : [],
  };
}

/** Each frame as a picture, untrimmed, in a folder. */
export function singlePictures({ frames, layers }: Contents, stem: string): Layout {
  return {
    pages: frames.map((frame): LaidPage => {
      const image = singlePath(stem, frame.name);
      const draw = (layer: number) => pixelsOn(frame, layer);
      return { image, pixels: draw(0), occupancy: 1, ...layerPages(image, layers, draw) };
    }),
    frames: frames.map((frame, page) => {
      const { w, h } = frame.rect;
      return {
        ...UPRIGHT,
        name: frame.name,
        page,
        rect: { x: 0, y: 0, w, h },
        size: { w, h },
        origin: frame.origin,
        marks: frame.marks,
        wholeOn: (layer) => pixelsOn(frame, layer),
      };
    }),
    copies: [],
    notes: [],
  };
}

function unequal(frames: readonly FrameToDeliver[]): string {
  const sizes = new Set(frames.map(({ rect }) => `${rect.w} × ${rect.h}`));
  return sizes.size > 1 ? t("; frames of {sizes} sizes stand in them by their origins", { sizes: sizes.size }) : "";
}
