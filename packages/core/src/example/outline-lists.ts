/**
 * Handles lists of corners in an example's frames: flat numbers, pairs or points, for one polygon or several. Since their length varies,
 * each list is rewritten in the spelling of the example's first.
 */
import { lastPart, says } from "../metadata";
import { type FramePoint, type Outline, ownOf, type Size } from "../model";
import { areaOf } from "../outline";
import type { FrameFacts } from "./facts";
import { type Place, placeAt } from "./place";

export interface OutlineList {
  /** Inside a frame's record. */
  readonly path: string;
  /** What the example calls it. */
  readonly name: string;
  readonly as: Spelled["as"];
  readonly several: boolean;
  /** Whether corners are in fractions of the frame's size. */
  readonly share: boolean;
  /** Of the first that the example has. */
  readonly spelling: Spelling;
}

/** How corners and polygons are put down as text. */
interface Spelling {
  readonly corner: (x: string, y: string) => string;
  readonly between: string;
  readonly polygon: { readonly before: string; readonly after: string; readonly between: string };
}

/** A list of corners as written, unrounded. */
interface Spelled {
  readonly as: "flat" | "pairs" | "points";
  readonly corners: readonly FramePoint[];
}

/** Words that distinguish a list of constant length from other numbers. */
const WORDS = ["poly*", "outline*", "hull*", "shape*", "colli*", "vert*", "points", "corners", "contour*", "solid", "mask", "boundary"];
/** This share of the records that have a list must have corners near their frames. */
const MOSTLY = 0.9;

/** The lists of corners that frames' records have. `text` is the example's. */
export function outlineListsIn(frames: ReadonlyMap<Place, FrameFacts>, text: string): OutlineList[] {
  const byPath = new Map<string, { place: Place; frame: FrameFacts }[]>();
  for (const [record, frame] of frames) {
    const visit = (place: Place, path: string) => {
      if (place.list) {
        byPath.set(path, [...(byPath.get(path) ?? []), { place, frame }]);
        return;
      }
      for (const [key, child] of place.children) visit(child, path === "" ? key : `${path}.${key}`);
    };
    for (const [key, child] of record.children) visit(child, key);
  }
  return [...byPath].flatMap(([path, all]) => listAt(path, all, frames.size, text) ?? []);
}

function listAt(path: string, all: readonly { place: Place; frame: FrameFacts }[], frames: number, text: string): OutlineList | null {
  const full = all.filter(({ place }) => place.children.size > 0);
  if (full.length * 2 < frames || full.length < 2) return null;
  const read = full.map(({ place, frame }) => ({ polygons: polygonsAt(place), place, size: frame.size }));
  const [first] = read;
  const polygons = read.flatMap((each) => each.polygons ?? []);
  const as = polygons[0]?.as;
  const several = first?.polygons ? isSeveral(first.place) : false;
  if (!first || !as || read.some((each) => !each.polygons || isSeveral(each.place) !== several) || polygons.some((each) => each.as !== as))
    return null;
  const lengths = new Set(polygons.map(({ corners }) => corners.length));
  if (lengths.size === 1 && !says(lastPart(path), WORDS)) return null;
  const numbers = polygons.flatMap(({ corners }) => corners.flatMap(({ x, y }) => [x, y]));
  const share = numbers.every((each) => each >= -1 && each <= 2) && numbers.some((each) => !Number.isInteger(each));
  const near = read.filter(({ polygons: own, size }) => own?.every(({ corners }) => isNear(corners, share ? { w: 1, h: 1 } : size)));
  if (near.length < read.length * MOSTLY) return null;
  return { path, name: lastPart(path), as, several, share, spelling: spellingOf(first.place, as, several, text) };
}

function isNear(corners: readonly FramePoint[], { w, h }: Size): boolean {
  return corners.every(({ x, y }) => x >= -w && x <= 2 * w && y >= -h && y <= 2 * h) && areaOf(corners as Outline) !== 0;
}

const childrenOf = ({ children }: Place) => [...children.values()];
const numberOf = ({ value }: Place) => (typeof value?.means === "number" ? value.means : null);

function isSeveral(place: Place): boolean {
  return cornersAt(place) === null;
}

/** Null if it is neither a list of corners nor a list of such lists. */
function polygonsAt(place: Place): Spelled[] | null {
  const one = cornersAt(place);
  if (one) return [one];
  const several = childrenOf(place).map((child) => (child.list ? cornersAt(child) : null));
  return several.length > 0 && several.every((each) => each !== null) ? several : null;
}

function cornersAt(place: Place): Spelled | null {
  const children = childrenOf(place);
  const numbers = children.map(numberOf);
  if (children.length >= 6 && children.length % 2 === 0 && numbers.every((each) => each !== null)) {
    const corners = numbers.flatMap((x, k) => (k % 2 === 0 ? [{ x, y: numbers[k + 1] as number }] : []));
    return { as: "flat", corners };
  }
  if (children.length < 3) return null;
  const corners = children.map((child) => {
    const [x, y] = sidesOf(child).map((side) => (side ? numberOf(side) : null));
    return x === null || y === null || x === undefined || y === undefined ? null : { x, y };
  });
  if (corners.some((each) => each === null)) return null;
  return { as: children[0]?.list ? "pairs" : "points", corners: corners as FramePoint[] };
}

/** The two numbers of a corner, or none. */
function sidesOf(corner: Place): [Place | undefined, Place | undefined] {
  const { children, list } = corner;
  if (children.size !== 2) return [undefined, undefined];
  return list ? [children.get("0"), children.get("1")] : [children.get("x") ?? children.get("X"), children.get("y") ?? children.get("Y")];
}

function spellingOf(place: Place, as: Spelled["as"], several: boolean, text: string): Spelling {
  const all = childrenOf(place);
  const polygon = several ? (all[0] as Place) : place;
  const corners = childrenOf(polygon);
  const [first, second, third] = corners as [Place, Place, Place];
  const gap = (a: Place, b: Place) => text.slice(a.to, b.from);
  const corner =
    as === "flat" ? (x: string, y: string) => `${x}${gap(first, second)}${y}` : (x: string, y: string) => withSides(first, x, y, text);
  const inner = { from: first.from, to: (corners.at(-1) as Place).to };
  return {
    corner,
    between: as === "flat" ? gap(second, third) : gap(first, second),
    polygon: {
      before: several ? text.slice(polygon.from, inner.from) : "",
      after: several ? text.slice(inner.to, polygon.to) : "",
      between: all[1] && several ? gap(polygon, all[1]) : ", ",
    },
  };
}

/** The text of a corner with other numbers in it. */
function withSides(corner: Place, x: string, y: string, text: string): string {
  const [left, right] = sidesOf(corner).map((side, k) => ({ ...(side?.value as { from: number; to: number }), as: k === 0 ? x : y }));
  if (!left || !right) return "";
  const [a, b] = left.from < right.from ? [left, right] : [right, left];
  return text.slice(corner.from, a.from) + a.as + text.slice(a.to, b.from) + b.as + text.slice(b.to, corner.to);
}

type Outlined = Pick<FrameFacts, "outlines">;

/** The kinds that lists of frames have, found once for each list: every frame that is written asks for them. */
const kindsKnown = new WeakMap<readonly Outlined[], ReadonlySet<string>>();

/** The kind of outlines for a list: that of its name, or else the only one; null if there is none. */
export function kindFor({ name }: OutlineList, frames: readonly Outlined[]): string | null {
  const kinds = kindsKnown.get(frames) ?? new Set(frames.flatMap(({ outlines }) => Object.keys(outlines)));
  kindsKnown.set(frames, kinds);
  if (kinds.has(name)) return name;
  const [only] = kinds;
  return kinds.size === 1 && only !== undefined ? only : null;
}

export function outlinesOfKind({ outlines }: Outlined, kind: string | null): readonly Outline[] {
  return kind === null ? [] : (ownOf(outlines, kind) ?? []);
}

/** The edit that makes a list hold a frame's outlines; null if its place in the text is unknown. */
export function outlineChange(
  list: OutlineList,
  place: Place,
  frame: FrameFacts,
  kind: string | null,
  text: string,
): { from: number; to: number; text: string } | null {
  const children = childrenOf(place);
  const end = text[place.to - 1] === "]" ? place.to - 1 : null;
  const from = children[0]?.from ?? end;
  if (from === null) return null;
  const { spelling, several } = list;
  const polygons = wantedOf(list, frame, kind).map((corners) =>
    corners.map(({ x, y }) => spelling.corner(written(x), written(y))).join(spelling.between),
  );
  const { before, after, between } = spelling.polygon;
  const next = several ? polygons.map((each) => `${before}${each}${after}`).join(between) : (polygons[0] ?? "");
  return { from, to: children.at(-1)?.to ?? from, text: next };
}

/** In the list's own form: only the largest if it holds one; in its unit. */
function wantedOf(list: OutlineList, frame: FrameFacts, kind: string | null): FramePoint[][] {
  const all = outlinesOfKind(frame, kind);
  const told = list.several ? all : [...all].sort((a, b) => areaOf(b) - areaOf(a)).slice(0, 1);
  const { w, h } = frame.size;
  return told.map((polygon) => polygon.map(({ x, y }) => (list.share ? { x: x / w, y: y / h } : { x, y })));
}

/** At most six decimals, none that are zero. */
function written(value: number): string {
  return String(Math.round(value * 1e6) / 1e6 + 0);
}

/** Whether a record that was written says of a frame what was meant. */
export function saysOutlines(list: OutlineList, record: Place, frame: FrameFacts, kind: string | null): boolean {
  const place = placeAt(record, list.path);
  const wanted = wantedOf(list, frame, kind);
  if (!place || place.children.size === 0) return wanted.length === 0;
  const read = polygonsAt(place) ?? [];
  return (
    read.length === wanted.length &&
    read.every(({ corners }, k) => {
      const own = wanted[k] ?? [];
      return (
        corners.length === own.length &&
        corners.every(({ x, y }, n) => Math.abs(x - (own[n]?.x ?? 1e9)) < 1e-5 && Math.abs(y - (own[n]?.y ?? 1e9)) < 1e-5)
      );
    })
  );
}
