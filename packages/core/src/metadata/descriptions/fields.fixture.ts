/** Writes the fields of one frame's record: its rectangle in one of many forms, and other facts. */
import type { Rect } from "../../model";
import type { Random } from "../../random.fixture";
import type { KnownAtlas, KnownFrame } from "./known-atlas.fixture";
import type { Words } from "./words.fixture";

export type Leaf = string | number | boolean;
export type Value = Leaf | readonly Value[] | { readonly [key: string]: Value };

/** What a record says, field by field, in order. */
export type Fields = readonly (readonly [key: string, value: Value])[];

export interface Plan {
  readonly words: Words;
  readonly rectangle: string;
  readonly extras: string;
  readonly flat: boolean;
  readonly random: Random;
}

export const RECTANGLES = [
  "sides",
  "sides",
  "sides",
  "corners",
  "list",
  "corner-list",
  "pairs",
  "text",
  "px",
  "shares",
  "y-up",
  "size-first",
  "yx",
] as const;
export const GRID_RECTANGLES = ["index", "cell", "sides"] as const;

export function rectangleFields({ x, y, w, h }: Rect, atlas: KnownAtlas, { words, rectangle, flat }: Plan): Fields {
  const up = atlas.height - y - h;
  switch (rectangle) {
    case "corners":
      return [
        [words.left, x],
        [words.top, y],
        [words.right, x + w],
        [words.bottom, y + h],
      ];
    case "list":
      return [[words.rect, [x, y, w, h]]];
    case "corner-list":
      return [[words.rect, [x, y, x + w, y + h]]];
    case "pairs":
      return flat
        ? [
            [words.pos, [x, y]],
            [words.size, [w, h]],
          ]
        : [
            [words.pos, { [words.x]: x, [words.y]: y }],
            [words.size, { [words.w]: w, [words.h]: h }],
          ];
    case "text":
      return [[words.rect, `{{${x},${y}},{${w},${h}}}`]];
    case "px":
      return [
        [words.x, `${x}px`],
        [words.y, `${y}px`],
        [words.w, `${w}px`],
        [words.h, `${h}px`],
      ];
    case "shares":
      return [
        ["u0", x / atlas.width],
        ["v0", y / atlas.height],
        ["u1", (x + w) / atlas.width],
        ["v1", (y + h) / atlas.height],
      ].map(([key, value]) => [key as string, Math.round((value as number) * 1e6) / 1e6] as const);
    case "y-up":
      return [
        [words.x, x],
        [words.y, up],
        [words.w, w],
        [words.h, h],
      ];
    case "size-first":
      return [
        [words.w, w],
        [words.h, h],
        [words.x, x],
        [words.y, y],
      ];
    case "yx":
      return [
        [words.y, y],
        [words.x, x],
        [words.h, h],
        [words.w, w],
      ];
    case "index":
      return [[words.index, (x + (y / h) * (atlas.grid?.columns ?? 1) * w) / w]];
    case "cell": {
      return [
        [words.column, x / w],
        [words.row, y / h],
      ];
    }
    default:
      return [
        [words.x, x],
        [words.y, y],
        [words.w, w],
        [words.h, h],
      ];
  }
}

export function extraFields(frame: KnownFrame, k: number, { words, extras, flat }: Plan, tells: boolean): Fields {
  const { size, inset, origin, turned, ms } = frame;
  const fields: (readonly [string, Value])[] = [];
  if (extras.includes("trim"))
    fields.push(
      ...((flat
        ? [
            [words.fullW, size.w],
            [words.fullH, size.h],
            [words.insetX, inset.x],
            [words.insetY, inset.y],
          ]
        : [
            [words.full, { [words.w]: size.w, [words.h]: size.h }],
            [words.inset, { [words.x]: inset.x, [words.y]: inset.y }],
          ]) as [string, Value][]),
    );
  if (extras.includes("share"))
    fields.push(
      ...((flat
        ? [
            [words.originX, origin.x / size.w],
            [words.originY, origin.y / size.h],
          ]
        : [[words.origin, { x: origin.x / size.w, y: origin.y / size.h }]]) as [string, Value][]),
    );
  if (extras.includes("origin"))
    fields.push(
      ...((flat
        ? [
            [words.originX, origin.x],
            [words.originY, origin.y],
          ]
        : [[words.origin, { x: origin.x, y: origin.y }]]) as [string, Value][]),
    );
  if (tells || extras.includes("turned")) fields.push([words.turned, turned]);
  if (extras.includes("time")) fields.push([words.ms, ms]);
  if (extras.includes("noise"))
    fields.push(
      [words.id, 1000 + ((k * 7919) % 9000)],
      [words.colour, `#${((k * 2654435761) >>> 8).toString(16).padStart(6, "0").slice(-6)}`],
    );
  return fields;
}

export const EXTRAS = [
  "none",
  "trim",
  "trim share",
  "trim origin time",
  "time",
  "origin noise",
  "noise",
  "trim turned noise",
  "share time",
] as const;
export type Records = readonly { readonly frame: KnownFrame; readonly fields: Fields }[];
