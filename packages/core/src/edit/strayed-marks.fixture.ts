/** Which origins and marks no longer mean the pixel that they meant: an oracle of its own, which shares no code with what keeps them. */
import { type Frame, type FramePoint, originOf, type Project, type Rect, type Source } from "../model";

/** Edits that are there to change origins or marks, or what their numbers mean. */
export const CHANGES_MARKS: ReadonlySet<string> = new Set([
  ...["acrossMarks", "angle", "box", "changeBox", "clearMarks", "fillPoint", "point", "removeBox", "removeMark", "renameMark", "setBoxes"],
  ...["setOutlines", "setTrace", "steadyOutline", "forgetOrigins", "mend", "nudge", "origins", "sourceOrigin", "steadyClip", "scale"],
  // A file that says where they are, and a cut with everything decided about it.
  ...["cutByMetadata", "cutThereAndBack", "refreshByMetadata", "restoreCut"],
]);

/**
 * The origins and marks of frames that still show the same part of the same picture, but are at another pixel of it, or gone. Half a pixel
 * of the project is none: origins are at halves.
 */
export function strayedMarks(before: Project, after: Project): string[] {
  return before.sources.flatMap((source) => {
    const now = after.sources.find(({ id }) => id === source.id);
    if (!now || now === source) return [];
    return source.frames.flatMap((frame) => {
      const same = now.frames.find(({ key }) => key === frame.key);
      if (!same || !showsTheSame(source, frame, now, same)) return [];
      const places = new Map(placesOf(now, same));
      return placesOf(source, frame).flatMap(([what, was]) => {
        const is = places.get(what);
        const off = is ? Math.max(Math.abs(is.x - was.x), Math.abs(is.y - was.y)) : Number.POSITIVE_INFINITY;
        return off <= 0.5 / (source.scale ?? 1) + 1e-9 ? [] : [`${what} of ${source.name} ${frame.key}, by ${off} px`];
      });
    });
  });
}

function showsTheSame(source: Source, a: Frame, now: Source, b: Frame): boolean {
  const [from, to] = [source.pictures[a.picture ?? 0], now.pictures[b.picture ?? 0]];
  return (
    a.turned === b.turned && from?.sha256 === to?.sha256 && common(a.rect, b.rect) * 2 > Math.min(a.rect.w * a.rect.h, b.rect.w * b.rect.h)
  );
}

function common(a: Rect, b: Rect): number {
  const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x);
  const h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y);
  return Math.max(0, w) * Math.max(0, h);
}

/** Everything decided about places in a frame, as pixels of its picture. */
function placesOf(source: Source, frame: Frame): [what: string, at: FramePoint][] {
  const { boxes = {}, points = {}, outlines = {} } = frame.marks ?? {};
  const numbers: [string, FramePoint][] = [
    ...(frame.origin || source.origin ? [["origin", originOf(source, frame)] as [string, FramePoint]] : []),
    ...Object.entries(boxes).flatMap(([name, all]) => all.map((box, k): [string, FramePoint] => [`box ${k} ${name}`, box])),
    ...Object.entries(points).map(([name, point]): [string, FramePoint] => [`point ${name}`, point]),
    ...Object.entries(outlines).flatMap(([name, all]) =>
      all.flatMap((outline, k) => outline.map((corner, j): [string, FramePoint] => [`corner ${k} ${j} of ${name}`, corner])),
    ),
  ];
  return numbers.map(([what, point]) => [what, onPicture(source, frame, point)]);
}

function onPicture({ scale = 1 }: Source, { rect, inset = { x: 0, y: 0 }, turned }: Frame, point: FramePoint): FramePoint {
  const [u, v] = [point.x / scale - inset.x, point.y / scale - inset.y];
  if (!turned) return { x: rect.x + u, y: rect.y + v };
  return turned === "counter" ? { x: rect.x + v, y: rect.y + rect.h - u } : { x: rect.x + rect.w - v, y: rect.y + u };
}
