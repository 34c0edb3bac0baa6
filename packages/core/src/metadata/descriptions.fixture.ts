/**
 * Generates descriptions of known atlases from a grammar: notation × nesting of records × field names × form of rectangles × other facts ×
 * form of clips. Seeded; each part is chosen independently, so that unlike ones combine.
 *
 * It shares nothing with the reader: words, notations and conventions are its own.
 */
import type { Rect, Size } from "../model";
import { type Coverage, clearPixels, coverageOf } from "../raster";

export interface KnownFrame {
  readonly name: string;
  readonly clip: string;
  /** Its place in its clip. */
  readonly number: number;
  readonly rect: Rect;
  readonly turned: boolean;
  readonly inset: { readonly x: number; readonly y: number };
  readonly size: Size;
  /** In pixels from the untrimmed top left corner. */
  readonly origin: { readonly x: number; readonly y: number };
  readonly ms: number;
}

export interface KnownAtlas {
  readonly width: number;
  readonly height: number;
  readonly frames: readonly KnownFrame[];
  /** Size of the cells, of an atlas that is a plain grid; null of a packed one. */
  readonly grid: { readonly cell: Size; readonly columns: number } | null;
  /** Whether its frames are unordered. */
  readonly mixed: boolean;
  readonly coverage: Coverage;
}

export interface Description {
  readonly seed: number;
  readonly text: string;
  readonly atlas: KnownAtlas;
  /** The choices it was made of, for figures by dimension. */
  readonly made: Readonly<Record<Dimension, string>>;
  /** What it describes. */
  readonly tells: {
    readonly names: readonly string[];
    readonly sizes: boolean;
    readonly turned: boolean;
    readonly origin: boolean;
    readonly time: boolean;
  };
  readonly clips:
    | readonly { readonly name: string; readonly playback: string; readonly frames: readonly string[]; readonly ms: number | null }[]
    | null;
}

export const DIMENSIONS = ["container", "nesting", "naming", "rectangle", "extras", "clips", "art"] as const;
export type Dimension = (typeof DIMENSIONS)[number];

type Random = () => number;

/** Mulberry32, a public-domain generator by Tommy Ettinger. */
function randomFrom(seed: number): Random {
  let state = Math.imul(seed + 1, 0x9e3779b9) >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const CLIP_NAMES = ["walk", "strike", "idle", "jump", "rest", "carry", "kneel", "bow", "drink", "look"];

function atlasOf(random: Random, grid: boolean): KnownAtlas {
  const pick = picker(random);
  const whole = { w: pick([24, 32, 40, 48]), h: pick([32, 40, 48, 56]) };
  const names = shuffled(CLIP_NAMES, random).slice(0, 2 + Math.floor(random() * 3));
  const trims = random() < 0.7;
  const figures = names.flatMap((clip) => {
    const count = 3 + Math.floor(random() * 4);
    const ms = pick([60, 80, 100, 120, 150]);
    return Array.from({ length: count }, (_, number) => {
      const w = Math.max(6, Math.round(whole.w * (0.35 + random() * 0.6)));
      const h = Math.max(8, Math.round(whole.h * (0.55 + random() * 0.4)));
      // Figures stand near the ground.
      const inset = {
        x: Math.floor((whole.w - w) * (0.3 + random() * 0.4)),
        y: Math.max(0, whole.h - h - (random() < 0.8 ? 0 : Math.floor(random() * 3))),
      };
      return { clip, number, w, h, inset, ms };
    });
  });
  if (grid) {
    const columns = 4 + Math.floor(random() * 4);
    const rows = Math.ceil(figures.length / columns);
    const frames = figures.map(({ clip, number, w, h, inset, ms }, k): KnownFrame & { drawn: Rect } => {
      const rect = { x: (k % columns) * whole.w, y: Math.floor(k / columns) * whole.h, ...whole };
      return {
        name: `${clip}_${number}`,
        clip,
        number,
        rect,
        turned: false,
        inset: { x: 0, y: 0 },
        size: whole,
        origin: { x: whole.w / 2, y: whole.h },
        ms,
        drawn: { x: rect.x + inset.x, y: rect.y + inset.y, w, h },
      };
    });
    const [width, height] = [columns * whole.w, rows * whole.h];
    return {
      width,
      height,
      frames,
      mixed: false,
      grid: { cell: whole, columns },
      coverage: drawn(
        width,
        height,
        frames.map((frame) => frame.drawn),
      ),
    };
  }
  const gap = pick([1, 2, 2, 4]);
  const width = 160 + 16 * Math.floor(random() * 4);
  let x = gap;
  let y = gap;
  let row = 0;
  const turns = random() < 0.25;
  const mixed = random() < 0.4;
  const frames = figures.map(({ clip, number, w, h, inset, ms }): KnownFrame => {
    const turned = turns && random() < 0.4;
    const stored = turned ? { w: h, h: w } : { w, h };
    if (x + stored.w + gap > width) {
      x = gap;
      y += row + gap;
      row = 0;
    }
    const rect = { x, y, ...stored };
    x += stored.w + gap;
    row = Math.max(row, stored.h);
    const size = trims ? whole : { w, h };
    return {
      name: `${clip}_${number}`,
      clip,
      number,
      rect,
      turned,
      inset: trims ? inset : { x: 0, y: 0 },
      size,
      origin: { x: Math.round(size.w) / 2, y: size.h },
      ms,
    };
  });
  const height = Math.ceil((y + row + gap) / 8) * 8;
  return {
    width,
    height,
    frames: mixed ? shuffled(frames, random) : frames,
    mixed,
    grid: null,
    coverage: drawn(
      width,
      height,
      frames.map(({ rect }) => rect),
    ),
  };
}

function drawn(width: number, height: number, rects: readonly Rect[]): Coverage {
  const pixels = clearPixels(width, height);
  for (const { x, y, w, h } of rects)
    for (let row = 0; row < h; row++)
      for (let column = 0; column < w; column++) {
        const dx = (column + 0.5) / w - 0.5;
        const dy = (row + 0.5) / h - 0.5;
        if (dx * dx + dy * dy <= 0.3) pixels.bytes[((y + row) * width + x + column) * 4 + 3] = 255;
      }
  return coverageOf(pixels);
}

type Leaf = string | number | boolean;
type Value = Leaf | readonly Value[] | { readonly [key: string]: Value };

const picker =
  (random: Random) =>
  <T>(list: readonly T[]): T =>
    list[Math.floor(random() * list.length)] as T;

function shuffled<T>(list: readonly T[], random: Random): T[] {
  const out = [...list];
  for (let k = out.length - 1; k > 0; k--) {
    const other = Math.floor(random() * (k + 1));
    [out[k], out[other]] = [out[other] as T, out[k] as T];
  }
  return out;
}

const WORDS = {
  english: {
    name: "name",
    x: "x",
    y: "y",
    w: "width",
    h: "height",
    right: "right",
    bottom: "bottom",
    left: "left",
    top: "top",
    rect: "frame",
    pos: "position",
    size: "size",
    fullW: "sourceWidth",
    fullH: "sourceHeight",
    full: "sourceSize",
    insetX: "offsetX",
    insetY: "offsetY",
    inset: "offset",
    originX: "pivotX",
    originY: "pivotY",
    origin: "pivot",
    turned: "rotated",
    ms: "duration",
    frames: "frames",
    clips: "animations",
    fps: "frameRate",
    loop: "loop",
    first: "from",
    last: "to",
    count: "count",
    list: "frames",
    index: "index",
    column: "column",
    row: "row",
    cellW: "tileWidth",
    cellH: "tileHeight",
    columns: "columns",
    id: "id",
    colour: "color",
  },
  snake: {
    name: "frame_name",
    x: "pos_x",
    y: "pos_y",
    w: "frame_w",
    h: "frame_h",
    right: "x2",
    bottom: "y2",
    left: "x1",
    top: "y1",
    rect: "region",
    pos: "at",
    size: "extent",
    fullW: "orig_w",
    fullH: "orig_h",
    full: "orig",
    insetX: "trim_x",
    insetY: "trim_y",
    inset: "trim_offset",
    originX: "anchor_x",
    originY: "anchor_y",
    origin: "anchor",
    turned: "is_rotated",
    ms: "delay_ms",
    frames: "sprites",
    clips: "sequences",
    fps: "fps",
    loop: "looping",
    first: "start",
    last: "end",
    count: "frame_count",
    list: "steps",
    index: "cell_index",
    column: "col",
    row: "row",
    cellW: "cell_w",
    cellH: "cell_h",
    columns: "cols",
    id: "uid",
    colour: "tint",
  },
  short: {
    name: "n",
    x: "x",
    y: "y",
    w: "w",
    h: "h",
    right: "r",
    bottom: "b",
    left: "l",
    top: "t",
    rect: "f",
    pos: "xy",
    size: "wh",
    fullW: "ow",
    fullH: "oh",
    full: "o",
    insetX: "ox",
    insetY: "oy",
    inset: "off",
    originX: "px",
    originY: "py",
    origin: "p",
    turned: "rot",
    ms: "ms",
    frames: "fr",
    clips: "an",
    fps: "fps",
    loop: "lp",
    first: "a",
    last: "z",
    count: "c",
    list: "s",
    index: "i",
    column: "col",
    row: "row",
    cellW: "tw",
    cellH: "th",
    columns: "cols",
    id: "k",
    colour: "c0",
  },
  foreign: {
    name: "bezeichnung",
    x: "links",
    y: "oben",
    w: "breite",
    h: "hoehe",
    right: "rechts",
    bottom: "unten",
    left: "links",
    top: "oben",
    rect: "ausschnitt",
    pos: "lage",
    size: "masse",
    fullW: "ganzebreite",
    fullH: "ganzehoehe",
    full: "ganz",
    insetX: "randlinks",
    insetY: "randoben",
    inset: "rand",
    originX: "fussx",
    originY: "fussy",
    origin: "fuss",
    turned: "gedreht",
    ms: "dauer",
    frames: "bilder",
    clips: "ablaeufe",
    fps: "takt",
    loop: "endlos",
    first: "von",
    last: "bis",
    count: "anzahl",
    list: "folge",
    index: "nummer",
    column: "spalte",
    row: "zeile",
    cellW: "zellbreite",
    cellH: "zellhoehe",
    columns: "spalten",
    id: "kennung",
    colour: "farbe",
  },
  nonsense: {
    name: "qua",
    x: "blip",
    y: "dorn",
    w: "fesk",
    h: "grum",
    right: "hulp",
    bottom: "jask",
    left: "blip",
    top: "dorn",
    rect: "kelm",
    pos: "lorp",
    size: "munt",
    fullW: "nurg",
    fullH: "oskl",
    full: "pleb",
    insetX: "quon",
    insetY: "rusk",
    inset: "snib",
    originX: "terp",
    originY: "ulmo",
    origin: "vont",
    turned: "wemb",
    ms: "xant",
    frames: "yolp",
    clips: "zerk",
    fps: "arbo",
    loop: "brin",
    first: "crud",
    last: "dwel",
    count: "elmp",
    list: "fras",
    index: "gond",
    column: "harn",
    row: "irsk",
    cellW: "jorp",
    cellH: "kurd",
    columns: "lamb",
    id: "mirt",
    colour: "nask",
  },
} as const;
type Words = Record<keyof (typeof WORDS)["english"], string>;

/** What a record says, field by field, in order. */
type Fields = readonly (readonly [key: string, value: Value])[];

interface Plan {
  readonly words: Words;
  readonly rectangle: string;
  readonly extras: string;
  readonly flat: boolean;
  readonly random: Random;
}

const RECTANGLES = [
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
const GRID_RECTANGLES = ["index", "cell", "sides"] as const;

function rectangleFields({ x, y, w, h }: Rect, atlas: KnownAtlas, { words, rectangle, flat }: Plan): Fields {
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

function extraFields(frame: KnownFrame, k: number, { words, extras, flat }: Plan, tells: boolean): Fields {
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

const EXTRAS = [
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
const CLIPS = ["none", "names", "ranges", "counts", "numbers", "pingpong"] as const;

/** How a whole document is written from a tree. */
const TREE_CONTAINERS = ["json", "json", "jsonc", "xml", "xml-elements", "plist", "yaml", "toml", "lua", "module"] as const;
/** How rows of fields are written. */
const ROW_CONTAINERS = [
  "csv",
  "semicolons",
  "tabs",
  "bare csv",
  "blanks",
  "sections",
  "repeated",
  "calls",
  "array",
  "labels",
  "blocks",
  "parens",
  "resource",
] as const;

export function description(seed: number): Description {
  const random = randomFrom(seed);
  const pick = picker(random);
  const grid = random() < 0.3;
  const atlas = atlasOf(random, grid);
  const naming = pick(["english", "english", "snake", "short", "foreign", "nonsense"] as const);
  const words: Words = WORDS[naming];
  const tree = random() < 0.55;
  const container = tree ? pick(TREE_CONTAINERS) : pick(ROW_CONTAINERS);
  const rectangle = grid
    ? pick(GRID_RECTANGLES)
    : pick(
        tree
          ? RECTANGLES
          : RECTANGLES.filter((each) => !["text", "list", "corner-list"].includes(each) || container === "calls" || container === "array"),
      );
  const extras = pick(EXTRAS);
  const turns = atlas.frames.some(({ turned }) => turned);
  const bare = ["bare csv", "calls", "array", "repeated"].includes(container);
  // Without known words only the rectangle and obvious facts can be given.
  const plan: Plan = {
    words,
    rectangle: bare ? pick(["sides", "corners"]) : rectangle,
    extras: bare ? pick(["none", "time"]) : extras,
    flat: !tree,
    random,
  };
  const trims = plan.extras.includes("trim");
  const nesting = tree
    ? pick(
        container === "xml" || container === "xml-elements"
          ? ["list", "list", "wrapped", "sections"]
          : ["list", "keyed", "keyed", "wrapped", "sections", "keyed sections", "columns"],
      )
    : container === "repeated"
      ? "sections"
      : "rows";
  const clipWay = nesting.includes("sections")
    ? "around"
    : tree
      ? pick(atlas.mixed ? CLIPS.filter((each) => each !== "ranges" && each !== "counts") : CLIPS)
      : "none";
  // Frames identified only by order are in order; without an untrimmed size, the trimmed one is everything.
  const ordered = nesting.includes("sections") ? atlas.frames.toSorted((a, b) => a.number - b.number) : atlas.frames;
  const told: KnownAtlas = { ...atlas, frames: ordered.map((frame) => (trims ? frame : untold(frame))) };
  const made = {
    container,
    nesting,
    naming,
    rectangle: plan.rectangle,
    extras: plan.extras,
    clips: clipWay,
    art: grid ? "grid" : turns ? "turned" : "packed",
  };
  const records = told.frames.map((frame, k) => ({
    frame,
    fields: [...rectangleFields(frame.rect, told, plan), ...extraFields(frame, k, plan, turns)],
  }));
  const text = tree
    ? treeText(container, treeOf(records, nesting, clipWay, words, told, plan), nesting)
    : rowsText(container, records, words, told, plan, naming);
  return {
    seed,
    text,
    atlas: told,
    made,
    tells: {
      names: told.frames.map((frame) => (nesting === "keyed sections" ? `${frame.clip}/${frame.number}` : frame.name)),
      sizes: plan.extras.includes("trim"),
      turned: turns || plan.extras.includes("turned"),
      origin: plan.extras.includes("share") || plan.extras.includes("origin"),
      time: plan.extras.includes("time"),
    },
    clips: clipsTold(told, clipWay, nesting),
  };
}

/** What is known about a frame without an untrimmed size. */
function untold(frame: KnownFrame): KnownFrame {
  const size = frame.turned ? { w: frame.rect.h, h: frame.rect.w } : { w: frame.rect.w, h: frame.rect.h };
  return { ...frame, size, inset: { x: 0, y: 0 }, origin: { x: size.w / 2, y: size.h } };
}

type Records = readonly { readonly frame: KnownFrame; readonly fields: Fields }[];

function clipNames(atlas: KnownAtlas): string[] {
  return [...new Set(atlas.frames.map(({ clip }) => clip))];
}

function clipsTold(atlas: KnownAtlas, way: string, nesting: string): Description["clips"] {
  if (way === "none") return null;
  return clipNames(atlas).map((name, k) => {
    const frames = atlas.frames.map((frame, index) => ({ frame, index })).filter(({ frame }) => frame.clip === name);
    const inOrder =
      way === "around" || way === "ranges" || way === "counts" ? frames : frames.toSorted((a, b) => a.frame.number - b.frame.number);
    return {
      name,
      playback: way === "pingpong" ? (k === 0 ? "pingpong" : "loop") : way === "around" ? "loop" : k % 2 === 0 ? "loop" : "once",
      frames: inOrder.map(({ frame }) => (nesting === "keyed sections" ? `${frame.clip}/${frame.number}` : frame.name)),
      ms: way === "around" ? null : 100,
    };
  });
}

function treeOf(records: Records, nesting: string, clipWay: string, words: Words, atlas: KnownAtlas, plan: Plan): Value {
  const object = (fields: Fields): Value => Object.fromEntries(fields);
  const named = ({ frame, fields }: Records[number]): Value => object([[words.name, frame.name], ...fields]);
  const cells =
    plan.rectangle === "index" || plan.rectangle === "cell"
      ? [
          [words.cellW, atlas.grid?.cell.w],
          [words.cellH, atlas.grid?.cell.h],
          ...(plan.rectangle === "index" ? [[words.columns, atlas.grid?.columns]] : []),
        ]
      : [];
  const head = Object.fromEntries(cells) as Record<string, Value>;
  const clips = clipWay === "none" || clipWay === "around" ? {} : { [words.clips]: clipsOf(clipWay, words, atlas) };
  switch (nesting) {
    case "keyed":
      return { ...head, [words.frames]: Object.fromEntries(records.map(({ frame, fields }) => [frame.name, object(fields)])), ...clips };
    case "wrapped":
      return { version: 3, atlas: { image: "hero.png", ...head, [words.frames]: records.map(named) }, ...clips };
    case "sections":
      return {
        ...head,
        [words.clips]: clipNames(atlas).map((clip) => ({
          [words.name]: clip,
          [words.list]: records.filter(({ frame }) => frame.clip === clip).map(named),
        })),
      };
    case "keyed sections":
      return {
        ...head,
        [words.clips]: Object.fromEntries(
          clipNames(atlas).map((clip) => [
            clip,
            Object.fromEntries(
              records.filter(({ frame }) => frame.clip === clip).map(({ frame, fields }) => [String(frame.number), object(fields)]),
            ),
          ]),
        ),
      };
    case "columns": {
      const keys = [words.name, ...(records[0]?.fields.map(([key]) => key) ?? [])];
      const rows = records.map((record) => new Map<string, Value>([[words.name, record.frame.name], ...record.fields]));
      return { ...head, [words.frames]: Object.fromEntries(keys.map((key) => [key, rows.map((row) => row.get(key) ?? 0)])), ...clips };
    }
    default:
      return { ...head, [words.frames]: records.map(named), ...clips };
  }
}

function clipsOf(way: string, words: Words, atlas: KnownAtlas): Value {
  return clipNames(atlas).map((clip, k): Value => {
    const own = atlas.frames.map((frame, index) => ({ frame, index })).filter(({ frame }) => frame.clip === clip);
    const ordered = own.toSorted((a, b) => a.frame.number - b.frame.number);
    const first = own[0]?.index ?? 0;
    const playing: Record<string, Value> = way === "pingpong" ? { mode: k === 0 ? "ping-pong" : "loop" } : { [words.loop]: k % 2 === 0 };
    switch (way) {
      case "ranges":
        return { [words.name]: clip, [words.first]: first, [words.last]: first + own.length - 1, [words.fps]: 10, ...playing };
      case "counts":
        return { [words.name]: clip, [words.first]: first, [words.count]: own.length, [words.fps]: 10, ...playing };
      case "numbers":
        return { [words.name]: clip, [words.list]: ordered.map(({ index }) => index), [words.fps]: 10, ...playing };
      default:
        return { [words.name]: clip, [words.list]: ordered.map(({ frame }) => frame.name), [words.fps]: 10, ...playing };
    }
  });
}

const isLeaf = (value: Value): value is Leaf => typeof value !== "object";
const entriesOf = (value: Value): [string, Value][] => Object.entries(value as { [key: string]: Value });

function treeText(container: string, tree: Value, nesting: string): string {
  switch (container) {
    case "jsonc":
      return `// made by hand\n${JSON.stringify(tree, null, 2).replace(/(\n\s*)([}\]])/g, ",$1$2")}`;
    case "xml":
      return `<?xml version="1.0"?>\n${xmlOf("root", tree, true)}`;
    case "xml-elements":
      return xmlOf("root", tree, false);
    case "plist":
      return `<?xml version="1.0"?><plist version="1.0">${plistOf(tree)}</plist>`;
    case "yaml":
      return yamlOf(tree, 0);
    case "toml":
      return tomlOf(tree);
    case "lua":
      return `-- made by hand\nreturn ${luaOf(tree, 0)}\n`;
    case "module":
      return `export const ${nesting.replace(/\W/g, "")} = ${JSON.stringify(tree, null, 1)
        .replace(/"([a-z_]\w*)":/gi, "$1:")
        .replace(/"/g, "'")};\n`;
    default:
      return JSON.stringify(tree, null, nesting.length % 2 ? 2 : 0);
  }
}

function xmlOf(tag: string, value: Value, attributes: boolean): string {
  if (isLeaf(value)) return `<${tag}>${value}</${tag}>`;
  if (Array.isArray(value)) {
    if (value.every((each) => isLeaf(each)))
      return attributes ? `<${tag}>${value.join(" ")}</${tag}>` : value.map((each) => `<${tag}>${each}</${tag}>`).join("");
    return `<${tag}>${value.map((each) => xmlOf("item", each, attributes)).join("\n")}</${tag}>`;
  }
  const own = attributes ? entriesOf(value).filter(([, each]) => isLeaf(each)) : [];
  const rest = entriesOf(value).filter(([key]) => !own.some(([name]) => name === key));
  return `<${tag}${own.map(([key, each]) => ` ${key}="${each}"`).join("")}>${rest.map(([key, each]) => xmlOf(key, each, attributes)).join("")}</${tag}>`;
}

function plistOf(value: Value): string {
  if (typeof value === "boolean") return `<${value}/>`;
  if (typeof value === "number") return Number.isInteger(value) ? `<integer>${value}</integer>` : `<real>${value}</real>`;
  if (typeof value === "string") return `<string>${value}</string>`;
  if (Array.isArray(value)) return `<array>${value.map(plistOf).join("")}</array>`;
  return `<dict>${entriesOf(value)
    .map(([key, each]) => `<key>${key}</key>${plistOf(each)}`)
    .join("")}</dict>`;
}

function yamlOf(value: Value, depth: number): string {
  const indent = "  ".repeat(depth);
  if (isLeaf(value)) return typeof value === "string" && /[{}#[\],]/.test(value) ? JSON.stringify(value) : String(value);
  if (Array.isArray(value)) {
    if (value.every((each) => isLeaf(each))) return `[${value.map((each) => yamlOf(each, 0)).join(", ")}]`;
    return value.map((each) => `\n${indent}- ${yamlOf(each, depth + 1).trimStart()}`).join("");
  }
  return entriesOf(value)
    .map(
      ([key, each]) =>
        `\n${indent}${key}:${isLeaf(each) || (Array.isArray(each) && each.every((item) => isLeaf(item))) ? " " : ""}${yamlOf(each, depth + 1)}`,
    )
    .join("");
}

function tomlOf(tree: Value): string {
  const inline = (value: Value): string =>
    isLeaf(value)
      ? JSON.stringify(value)
      : Array.isArray(value)
        ? `[${value.map(inline).join(", ")}]`
        : `{ ${entriesOf(value)
            .map(([key, each]) => `${tomlKey(key)} = ${inline(each)}`)
            .join(", ")} }`;
  const lines: string[] = [];
  const visit = (value: Value, path: string) => {
    const simple = entriesOf(value).filter(
      ([, each]) => isLeaf(each) || (Array.isArray(each) && each.every((item) => isLeaf(item) || Array.isArray(item))),
    );
    for (const [key, each] of simple) lines.push(`${tomlKey(key)} = ${inline(each)}`);
    for (const [key, each] of entriesOf(value)) {
      if (simple.some(([name]) => name === key)) continue;
      const at = path === "" ? tomlKey(key) : `${path}.${tomlKey(key)}`;
      if (Array.isArray(each))
        for (const item of each) {
          lines.push("", `[[${at}]]`);
          visit(item, at);
        }
      else {
        lines.push("", `[${at}]`);
        visit(each, at);
      }
    }
  };
  visit(tree, "");
  return lines.join("\n");
}

const tomlKey = (key: string) => (/^[\w-]+$/.test(key) ? key : JSON.stringify(key));

function luaOf(value: Value, depth: number): string {
  const indent = "\t".repeat(depth + 1);
  if (isLeaf(value)) return JSON.stringify(value);
  if (Array.isArray(value))
    return value.every((each) => isLeaf(each))
      ? `{ ${value.map((each) => luaOf(each, 0)).join(", ")} }`
      : `{\n${value.map((each) => `${indent}${luaOf(each, depth + 1)},\n`).join("")}${indent.slice(1)}}`;
  return `{\n${entriesOf(value)
    .map(([key, each]) => `${indent}${/^[a-z_]\w*$/i.test(key) ? key : `["${key}"]`} = ${luaOf(each, depth + 1)},\n`)
    .join("")}${indent.slice(1)}}`;
}

function rowsText(container: string, records: Records, words: Words, atlas: KnownAtlas, plan: Plan, naming: string): string {
  const leaves = (fields: Fields): Leaf[] => fields.flatMap(([, value]) => (Array.isArray(value) ? (value as Leaf[]) : [value as Leaf]));
  const heads = (fields: Fields): string[] =>
    fields.flatMap(([key, value]) => (Array.isArray(value) ? value.map((_, k) => `${key}${"xy"[k] ?? k}`) : [key]));
  const first = records[0]?.fields ?? [];
  const table = (separator: string) =>
    [[words.name, ...heads(first)], ...records.map(({ frame, fields }) => [frame.name, ...leaves(pad(fields, first))])]
      .map((row) => row.join(separator))
      .join("\n");
  const shown = (value: Value): string => (Array.isArray(value) ? value.join(", ") : String(value));
  const cell = plan.rectangle === "index" || plan.rectangle === "cell";
  const head = cell
    ? [`${words.cellW} = ${atlas.grid?.cell.w}`, `${words.cellH} = ${atlas.grid?.cell.h}`, `${words.columns} = ${atlas.grid?.columns}`]
    : [];
  switch (container) {
    case "csv":
      return table(",");
    case "semicolons":
      return table(";");
    case "tabs":
      return table("\t");
    case "blanks":
      return table("  ");
    case "bare csv":
      return records.map(({ frame, fields }) => [frame.name, ...leaves(fields)].join(",")).join("\n");
    case "sections":
      return [
        ...head,
        ...records.flatMap(({ frame, fields }) => [`[${frame.name}]`, ...fields.map(([key, value]) => `${key} = ${shown(value)}`), ""]),
      ].join("\n");
    case "repeated": {
      const clips = clipNames(atlas);
      return clips
        .flatMap((clip) => [
          `[${clip}]`,
          `image=hero.png`,
          ...records.filter(({ frame }) => frame.clip === clip).map(({ fields }) => `frame=${leaves(pad(fields, first)).join(",")}`),
          "",
        ])
        .join("\n");
    }
    case "calls":
      return records
        .map(
          ({ frame, fields }) =>
            `sheet.add("${frame.name}", ${leaves(fields)
              .map((each) => JSON.stringify(each))
              .join(", ")});`,
        )
        .join("\n");
    case "array":
      return `static const Piece pieces[] = {\n${records
        .map(
          ({ frame, fields }) =>
            `  { "${frame.name}", ${leaves(fields)
              .map((each) => JSON.stringify(each))
              .join(", ")} },`,
        )
        .join("\n")}\n};\n`;
    case "labels":
      return [
        ...head,
        ...records.map(
          ({ frame, fields }) =>
            `${naming === "nonsense" ? "vok" : "sprite"} ${frame.name} ${pad(fields, first)
              .map(([key, value]) => `${key} ${shown(value)}`)
              .join(" ")}`,
        ),
      ].join("\n");
    case "blocks":
      return [
        ...head,
        ...records.flatMap(({ frame, fields }) => [frame.name, ...pad(fields, first).map(([key, value]) => `  ${key} ${shown(value)}`)]),
      ].join("\n");
    case "parens":
      return `(${words.frames}\n${records.map(({ frame, fields }) => `  (${words.name === "n" ? "e" : "piece"} (${words.name} "${frame.name}") ${fields.map(([key, value]) => `(${key} ${Array.isArray(value) ? value.join(" ") : JSON.stringify(value)})`).join(" ")})`).join("\n")})`;
    default:
      return records.map(({ frame, fields }) => `[part id="${frame.name}"]\n${resourceFields(frame, fields, plan)}`).join("\n\n");
  }
}

function resourceFields(frame: KnownFrame, fields: Fields, { words, rectangle }: Plan): string {
  const { x, y, w, h } = frame.rect;
  const plain = ["sides", "size-first", "yx", "px"].includes(rectangle);
  const rest = plain ? fields.slice(4) : fields;
  return [
    ...(plain ? [`${words.rect} = Rect( ${x}, ${y}, ${w}, ${h} )`] : []),
    ...rest.map(([key, value]) => `${key} = ${Array.isArray(value) ? `Vector( ${value.join(", ")} )` : JSON.stringify(value)}`),
  ].join("\n");
}

/** All rows have the first one's fields: turning is given for each or for none. */
function pad(fields: Fields, first: Fields): Fields {
  return first.map(([key]) => fields.find(([own]) => own === key) ?? [key, false]);
}
