/** What of a damaged document may be left out, and in which words: the smallest part that holds the damage. */
import { t } from "../words";
import { PLAIN_LOOP } from "./clip";
import { counted } from "./counted";
import { freeName, isFitName } from "./name";

export type Fields = Record<string, unknown>;

export type Path = readonly PropertyKey[];

export interface Damage {
  readonly path: Path;
  /** Whether it is a field that nobody knows; its owner is sound without it. */
  readonly isUnknown: boolean;
}

/** A part to leave out. */
export interface LeftOut {
  /** A prefix of the damage's path. */
  readonly path: Path;
  /** What stands there instead; undefined for nothing. */
  readonly instead: unknown;
  /** What is lost, for so many of its kind. */
  readonly words: (count: number) => string;
}

/** What one of a list is called. */
const WORDS: Readonly<Record<string, string>> = {
  sources: "source",
  clips: "clip",
  actions: "action",
  marks: "kind of marks",
  parts: "part",
  palettes: "palette",
  readings: "reading",
  examples: "example",
  stages: "stage",
  drives: "drive",
  deliveries: "delivery",
};

interface Found {
  readonly document: Fields;
  /** The list that holds the damaged thing. */
  readonly all: unknown;
  readonly owner: unknown;
  readonly path: Path;
}

/**
 * Paths of parts that others can do without, before their owners. `#` is any index, `*` any name. Frames and steps stand for drawings:
 * they lose what was decided about them first. A clip without one of its steps would look whole and be wrong.
 */
const PARTS: readonly (readonly [pattern: string, part: (of: Found) => Omit<LeftOut, "path">])[] = [
  [
    "sources.#.id",
    ({ document, owner }) => ({
      instead: likelyId(document),
      words: () => t("the id of source {owner}", { owner: nameOf(owner) }),
    }),
  ],
  [`${Object.keys(WORDS).join("|")}.#.name`, renamed],
  [
    "sources.#.pictures.#.file",
    ({ owner, path }) => ({
      instead: pathOfPicture(owner, path),
      words: () => t("the file names of source {owner}", { owner: nameOf(owner) }),
    }),
  ],
  ["sources.#.frames.#.marks.*.*", ({ owner, path }) => nothing(t("the {what} on frames of {owner}", named(owner, path)))],
  [
    "sources.#.frames.#.name|origin|marks|data|dropped",
    ({ owner, path }) => nothing(t("the {what} of frames of {owner}", named(owner, path))),
  ],
  [
    "sources.#.frames.#",
    ({ owner }) => ({ instead: undefined, words: (n) => t("{frames} of {name}", { frames: counted(n, "frame"), name: nameOf(owner) }) }),
  ],
  [
    "sources.#.layers.#",
    ({ owner }) => ({ instead: undefined, words: (n) => t("{layers} of {owner}", { layers: counted(n, "layer"), owner: nameOf(owner) }) }),
  ],
  ["sources.#.frames", ({ owner }) => ({ instead: [], words: () => t("all frames of source {owner}", { owner: nameOf(owner) }) })],
  ["sources.#.layers|clearing|palette|scale|origin", ({ owner, path }) => nothing(t("the {what} of source {owner}", named(owner, path)))],
  [
    "sources.#.cut",
    ({ owner }) => ({ instead: cutByHand(owner as Fields), words: () => t("the cut of source {owner}", { owner: nameOf(owner) }) }),
  ],
  ["clips.#.steps.#.events|eventValues|parts", ({ owner, path }) => nothing(t("the {what} on steps of clip {owner}", named(owner, path)))],
  ["clips.#.data", ({ owner, path }) => nothing(t("the {what} of clip {owner}", named(owner, path)))],
  [
    "clips.#.playback|times|loopFrom|after|doubleEnds",
    ({ owner, path }) => ({
      ...nothing(t("the {what} of clip {owner}", named(owner, path))),
      instead: PLAIN_LOOP[path[2] as keyof typeof PLAIN_LOOP],
    }),
  ],
  ["actions.#.facings.*", ({ owner, path }) => nothing(t("the facing {what} of action {owner}", named(owner, path)))],
  ["behaviours.*", ({ path }) => nothing(t('behaviour "{at}"', { at: String(path[1]) }))],
  ["behaviours.#", ({ owner }) => nothing(t("behaviour {owner}", { owner: nameOf(owner) }))],
];

/** The smallest part that holds the damage at a path, if it is within one of a list; otherwise the whole field, for what `plain` has. */
export function partAround(document: Fields, { path, isUnknown }: Damage, plain: object): LeftOut | null {
  const [field, at] = path;
  if (typeof field !== "string") return null;
  const all = document[field];
  const owner = (all as Fields | undefined)?.[String(at)];
  const word = WORDS[field];
  if (isUnknown && path.length > 1)
    return { ...nothing(t('an unknown "{what}" in {word} {owner}', { ...named(owner, path), word: word ?? field })), path };
  for (const [pattern, part] of PARTS) {
    const length = matched(pattern.split("."), path);
    if (length > 0) return { ...part({ document, all, owner, path: path.slice(0, length) }), path: path.slice(0, length) };
  }
  if (word !== undefined && typeof at === "number" && Array.isArray(document[field])) {
    return { ...nothing(`${word} ${nameOf(owner)}`), path: [field, at] };
  }
  return { ...nothing(t("its {field}", { field })), instead: structuredClone((plain as Fields)[field]), path: [field] };
}

/** How many parts of the path a pattern describes: all of its own, or 0. */
function matched(pattern: readonly string[], path: Path): number {
  const fits = (each: string, at: PropertyKey | undefined) =>
    each === "#" ? typeof at === "number" : typeof at === "string" && (each === "*" || each.split("|").includes(at));
  return pattern.every((each, k) => fits(each, path[k])) ? pattern.length : 0;
}

function nothing(words: string): Omit<LeftOut, "path"> {
  return { instead: undefined, words: () => words };
}

function named(owner: unknown, path: Path): { what: string; owner: string } {
  return { what: String(path.at(-1)), owner: nameOf(owner) };
}

/** The cut that goes with any frames. */
function cutByHand({ pictures }: Fields): Fields {
  const count = Array.isArray(pictures) ? pictures.length : 0;
  return { by: count === 0 ? "pieces" : count === 1 ? "hand" : "pictures" };
}

/** An unfit name, or the second of one name, becomes another. */
function renamed({ all, owner, path: [field] }: Found): Omit<LeftOut, "path"> {
  const word = WORDS[String(field)] ?? String(field);
  const { name } = owner as Fields;
  const isFit = typeof name === "string" && isFitName(name);
  const instead = freeName(isFit ? name : word, new Set((all as Fields[]).map((each) => String(each?.name))));
  const words = isFit
    ? t('the name of a second {word} "{name}", which is "{instead}" now', { word, name, instead })
    : t('the name of a {word}, which is "{instead}" now', { word, instead });
  return { instead, words: () => words };
}

/** The one id that is shown but missing, if there is one; otherwise one that nothing refers to. */
function likelyId(document: Fields): string {
  const own = new Set((document.sources as Fields[]).map((each) => each?.id));
  const shown = new Set([...JSON.stringify([document.clips, document.sources]).matchAll(/"(s\d{1,9})\//g)].map(([, id]) => id as string));
  const missing = [...shown].filter((id) => !own.has(id));
  if (missing.length === 1) return missing[0] as string;
  for (let number = 1; ; number++) if (!own.has(`s${number}`) && !shown.has(`s${number}`)) return `s${number}`;
}

function pathOfPicture(owner: unknown, path: Path): string {
  const picture = ((owner as Fields).pictures as Fields[])[path[3] as number];
  return `art/${typeof picture?.sha256 === "string" ? picture.sha256.slice(0, 16) : "picture"}.png`;
}

function nameOf(thing: unknown): string {
  const name = typeof thing === "object" && thing !== null ? (thing as Fields).name : undefined;
  return typeof name === "string" ? `"${name}"` : t("without a name");
}
