/**
 * Generates descriptions of known atlases from a grammar: notation × nesting of records × field names × form of rectangles × other facts ×
 * form of clips. Seeded; each part is chosen independently, so that unlike ones combine.
 *
 * It shares nothing with the reader: words, notations and conventions are its own.
 */
import { randomFrom } from "../../random.fixture";
import { EXTRAS, extraFields, GRID_RECTANGLES, type Plan, RECTANGLES, rectangleFields } from "./fields.fixture";
import { atlasOf, type KnownAtlas, type KnownFrame, picker } from "./known-atlas.fixture";
import { rowsText } from "./rows.fixture";
import { clipNames, treeOf, treeText } from "./trees.fixture";
import { WORDS, type Words } from "./words.fixture";

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
