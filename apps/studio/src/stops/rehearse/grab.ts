/** Grabs things on the stage: zones and platforms by the middle or an edge, others by their position. Units: whole px of the game. */
import { type Area, type FramePoint, findFrame, frameSize, originOf, type Stage } from "@caravan/core/model";
import { extraAt, type Setting } from "@caravan/core/stage";

export interface Grab {
  readonly list: "zones" | "platforms" | "extras";
  /** Its place in that list. */
  readonly place: number;
  /** Where it was. */
  readonly area: Area;
  readonly from: FramePoint;
  /** Which of its edges go along; none moves all of it. */
  readonly edges: { readonly x: "left" | "right" | null; readonly y: "top" | "bottom" | null };
}

/** No area becomes narrower or lower than this, in px. */
export const LEAST_SIDE = 3;

/** The thing under a point: topmost first, and an edge within `reach` px before the middle of something else. */
export function grabAt(setting: Setting, point: FramePoint, reach: number): Grab | null {
  const { stage } = setting;
  const areas = (["zones", "platforms"] as const).flatMap((list) =>
    stage[list].map((each, place) => ({ list, place, area: "area" in each ? each.area : each })),
  );
  const around = areas.toReversed().filter(({ area }) => isIn(area, point, reach));
  for (const each of around) {
    // Between two close edges the middle is out of reach, so the nearer edge is taken.
    const edges = { x: edgeNear(point.x, each.area.x, each.area.w, reach), y: edgeNear(point.y, each.area.y, each.area.h, reach) };
    if (edges.x !== "middle" || edges.y !== "middle")
      return {
        ...each,
        from: point,
        edges: {
          x: edges.x === "start" ? "left" : edges.x === "end" ? "right" : null,
          y: edges.y === "start" ? "top" : edges.y === "end" ? "bottom" : null,
        },
      };
  }
  const whole = { x: null, y: null };
  const extra = stage.extras.map((_, place) => place).findLast((place) => isIn(areaOfExtra(setting, place), point, 0));
  if (extra !== undefined) return { list: "extras", place: extra, area: areaOfExtra(setting, extra), from: point, edges: whole };
  const [middle] = around;
  return middle ? { ...middle, from: point, edges: whole } : null;
}

function isIn({ x, y, w, h }: Area, point: FramePoint, reach: number): boolean {
  return point.x >= x - reach && point.x < x + w + reach && point.y >= y - reach && point.y < y + h + reach;
}

function edgeNear(at: number, start: number, length: number, reach: number): "start" | "end" | "middle" {
  const [toStart, toEnd] = [Math.abs(at - start), Math.abs(at - start - length)];
  const within = Math.min(reach, length / 3);
  if (Math.min(toStart, toEnd) > (at < start || at > start + length ? reach : within)) return "middle";
  return toStart <= toEnd ? "start" : "end";
}

/** The drawn position of an extra: its first frame. */
function areaOfExtra(setting: Setting, place: number): Area {
  const extra = setting.stage.extras[place] as Stage["extras"][number];
  const shown = extraAt(setting, extra, 0);
  const found = shown && findFrame(setting.project, shown.frame);
  if (!found) return { x: extra.x - 8, y: extra.y - 16, w: 16, h: 16 };
  const { w, h } = frameSize(found.source, found.frame);
  const origin = originOf(found.source, found.frame);
  return { x: extra.x - (shown.mirror ? w - origin.x : origin.x), y: extra.y - origin.y, w, h };
}

/** Its position when the pointer is at a point. */
export function draggedArea({ area, from, edges }: Grab, to: FramePoint): Area {
  const [dx, dy] = [Math.round(to.x - from.x), Math.round(to.y - from.y)];
  if (edges.x === null && edges.y === null) return { ...area, x: area.x + dx, y: area.y + dy };
  const [x, w] = pulled(area.x, area.w, dx, edges.x === null ? null : edges.x === "left" ? "start" : "end");
  const [y, h] = pulled(area.y, area.h, dy, edges.y === null ? null : edges.y === "top" ? "start" : "end");
  return { x, y, w, h };
}

/** A start and a length with one end moved; the other end stays. */
function pulled(start: number, length: number, by: number, end: "start" | "end" | null): [start: number, length: number] {
  if (end === null) return [start, length];
  if (end === "end") return [start, Math.max(LEAST_SIDE, length + by)];
  const moved = Math.min(by, length - LEAST_SIDE);
  return [start + moved, length - moved];
}

/** The stage with the held thing at its current position. */
export function stageWith(stage: Stage, { list, place, area: before }: Grab, area: Area): Pick<Stage, "zones" | "platforms" | "extras"> {
  const { zones, platforms, extras } = stage;
  const put = <Each>(all: readonly Each[], next: (each: Each) => Each) => all.map((each, k) => (k === place ? next(each) : each));
  if (list === "zones") return { zones: put(zones, (each) => ({ ...each, area })), platforms, extras };
  if (list === "platforms") return { zones, platforms: put(platforms, () => area), extras };
  return { zones, platforms, extras: put(extras, (each) => ({ ...each, x: each.x + area.x - before.x, y: each.y + area.y - before.y })) };
}
