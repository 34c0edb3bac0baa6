/**
 * Writes a delivery in the shape of an example: the example's text with new records.
 *
 * Each new record is a copy of one of the example's with other values: the one of the same name if there is one; otherwise the one with
 * room for most of the facts, the most common of those. Values without a meaning stay as they are. Cost: O(records × values).
 */
import { isTrimmed, type Scope, type Sheet } from "./facts";
import type { Repeats } from "./loops";
import { kindFor, outlineChange } from "./outline-lists";
import { type Place, placeAt } from "./place";
import { CLIP_NAME, FACING, saysSame } from "./quantities";
import type { Shape } from "./shape";
import { spelledAs } from "./spelling";

interface Change {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/** The text of one file. */
export function writeInShape(shape: Shape, sheet: Sheet): string {
  const page = sheet.pages[0];
  const { root, text } = shape.located;
  return `${page ? written(root, "", { sheet, page }, bookOf(shape)) : text}\n`;
}

/** The example, and which of its records serve for which new ones. */
interface Book {
  readonly shape: Shape;
  readonly text: string;
  readonly framesByName: ReadonlyMap<string, Place>;
  /** The record to copy for a frame with a new name, by whether it is turned and trimmed; filled on demand. */
  readonly models: Map<string, Place>;
}

function bookOf(shape: Shape): Book {
  const framesByName = new Map([...shape.frames].map(([place, { name }]) => [name, place]));
  return { shape, text: shape.located.text, framesByName, models: new Map() };
}

/** A place's text with all its changes. */
function written(place: Place, path: string, scope: Scope, book: Book): string {
  const changes: Change[] = [];
  collect(place, path, scope, book, changes);
  return spliced(book.text, place, changes);
}

function collect(place: Place, path: string, scope: Scope, book: Book, changes: Change[]): void {
  const { shape, text } = book;
  const list = shape.outlines.get(path);
  if (list && scope.frame) {
    const change = outlineChange(list, place, scope.frame, kindFor(list, scope.sheet.frames), text);
    if (change) changes.push(change);
    return;
  }
  const spellings = [
    [place.key, `${path}#`],
    [place.value, path],
  ] as const;
  for (const [spelled, at] of spellings) {
    const slot = spelled && shape.slots.get(at);
    if (!spelled || !slot) continue;
    const raw = text.slice(spelled.from, spelled.to);
    const next = spelledAs(slot, slot.quantity.of(scope), spelled, raw, scope);
    if (next !== raw) changes.push({ from: spelled.from, to: spelled.to, text: next });
  }
  const members = below(path, "*");
  const repeats = shape.repeats.get(members);
  if (repeats === "once") intoOne(place, members, scope, book, changes);
  else if (repeats) repeat(place, members, repeats, scope, book, changes);
  else for (const [key, child] of place.children) collect(child, below(path, key), scope, book, changes);
}

const below = (path: string, key: string) => (path === "" ? key : `${path}.${key}`);

/** Members that mean nothing known: all is written into the first that holds frames, or the first; the others stay as they are. */
function intoOne(place: Place, pattern: string, scope: Scope, book: Book, changes: Change[]): void {
  const all = [...place.children.values()];
  const child = all.find((each) => holdsFrames(each, book.shape)) ?? all[0];
  if (child) collect(child, pattern, scope, book, changes);
}

function holdsFrames(place: Place, shape: Shape): boolean {
  return shape.frames.has(place) || [...place.children.values()].some((child) => holdsFrames(child, shape));
}

/** New members replace the example's from its first; other content between them stays. */
function repeat(place: Place, pattern: string, repeats: Repeats, scope: Scope, book: Book, changes: Change[]): void {
  const isMember = (child: Place) => repeats !== "frames" || book.shape.frames.has(child);
  const own = [...place.children.values()].filter(isMember);
  const [first] = own;
  if (first) {
    const texts = membersOf(repeats, scope, book.shape).map((member, k) =>
      written(modelFor(own, pattern, repeats, member, k, book), pattern, member, book),
    );
    const empty = texts.length === 0 ? emptied(place, first, own, book) : null;
    changes.push(empty ?? { from: first.from, to: first.to, text: texts.join(between(own, book)) });
  }
  let end = first?.from ?? 0;
  for (const [key, child] of place.children) {
    if (!isMember(child)) collect(child, `${pattern.slice(0, -1)}${key}`, scope, book, changes);
    else if (child !== first) {
      const parted = end <= child.from && SEPARATOR.test(gapOf(book, end, child.from));
      changes.push({ from: parted ? end : child.from, to: child.to, text: "" });
    }
    end = child.to;
  }
}

const SEPARATOR = /^(?:[\s,;]|-\s)*$/;

/** The text between two members, without YAML comments. */
function gapOf({ text, shape }: Book, from: number, to: number): string {
  const gap = text.slice(from, to);
  return shape.located.parsed.container === "yaml" ? gap.replace(/[ \t]*#[^\r\n]*/g, "").replace(/(\r?\n[ \t]*)+(?=\r?\n)/g, "") : gap;
}

/** What replaces an empty YAML block, whose members have no brackets; null for other notations. */
function emptied(place: Place, first: Place, own: readonly Place[], book: Book): Change | null {
  if (book.shape.located.parsed.container !== "yaml" || between(own, book).includes(",")) return null;
  const dash = place.list ? (/-[ \t]+$/.exec(book.text.slice(0, first.from))?.[0].length ?? 0) : 0;
  return { from: first.from - dash, to: first.to, text: place.list ? "[]" : "{}" };
}

/** What parts two members. */
function between(own: readonly Place[], book: Book): string {
  const { text, shape } = book;
  const [first, second] = own;
  const gap = first && second ? gapOf(book, first.to, second.from) : "";
  if (second && SEPARATOR.test(gap)) return gap;
  const indent = /[ \t]*$/.exec(text.slice(0, first?.from ?? 0))?.[0] ?? "";
  return `${shape.located.parsed.container === "json" ? "," : ""}\n${indent}`;
}

/** What each member is written for. */
function membersOf(repeats: Repeats, scope: Scope, { traits }: Shape): Scope[] {
  const { sheet, clip } = scope;
  switch (repeats) {
    case "pages":
      return sheet.pages.map((page) => ({ ...scope, page }));
    case "frames":
      return sheet.frames
        .filter((frame) => (traits.pages !== "around" || frame.page === scope.page) && (!clip || frame.clip === clip))
        .map((frame) => ({ ...scope, frame, page: frame.page }));
    case "steps":
      return (clip?.steps ?? []).map((step) => ({ ...scope, step, frame: step.frame }));
    case "actions":
      return [...new Map(sheet.clips.map((each) => [each.name, each])).values()].map((each) => ({ ...scope, clip: each }));
    case "facings":
      return sheet.clips.filter(({ name }) => name === clip?.name).map((each) => ({ ...scope, clip: each }));
    case "clips":
      return sheet.clips.map((each) => ({ ...scope, clip: each }));
    case "once":
      return [scope];
  }
}

/** The record of the example that a new one is written like. */
function modelFor(own: readonly Place[], pattern: string, repeats: Repeats, scope: Scope, index: number, book: Book): Place {
  switch (repeats) {
    case "frames":
      return frameModel(scope, book);
    case "steps":
    case "pages":
      return own[index] ?? fullest(own);
    default:
      return own.find((child) => isCalled(child, pattern, scope, book.shape)) ?? fullest(own);
  }
}

function frameModel(scope: Scope, { shape, framesByName, models }: Book): Place {
  const frame = scope.frame as NonNullable<Scope["frame"]>;
  const hasLists = (place: Place) => [...shape.outlines.values()].every(({ path }) => placeAt(place, path) !== null);
  const same = framesByName.get(String(shape.frameName?.quantity.of(scope) ?? frame.name));
  if (same && hasLists(same)) return same;
  const [turned, trimmed] = [frame.turned, isTrimmed(frame)];
  const known = models.get(`${turned} ${trimmed}`);
  if (known) return known;
  const places = [...shape.frames].filter(([place]) => hasLists(place));
  const counts = new Map<string, number>();
  for (const [place] of places) counts.set(fieldsOf(place), (counts.get(fieldsOf(place)) ?? 0) + 1);
  const worth = ([place, facts]: (typeof places)[number]) => {
    const fields = fieldsOf(place);
    // Room first: a record that is itself turned, or trimmed, has a field for it; the longest has the most.
    const like = (facts.turned === turned ? 2 : 0) + (isTrimmed(facts) === trimmed ? 1 : 0);
    return like * 1e9 + (turned || trimmed ? fields.split(" ").length * 1e6 : 0) + (counts.get(fields) ?? 0);
  };
  const model = places.reduce((best, each) => (worth(each) > worth(best) ? each : best))[0];
  models.set(`${turned} ${trimmed}`, model);
  return model;
}

/** What a short one leaves out could not be written. */
function fullest(own: readonly Place[]): Place {
  return own.reduce((best, each) => (each.children.size > best.children.size ? each : best));
}

/** Whether a member of the example has the new one's name, and its facing if it gives one. */
function isCalled(child: Place, pattern: string, scope: Scope, { slots }: Shape): boolean {
  let told = 0;
  for (const [path, { quantity }] of slots) {
    if (quantity !== CLIP_NAME && quantity !== FACING) continue;
    const at =
      path === `${pattern}#` ? child.key : path.startsWith(`${pattern}.`) ? placeAt(child, path.slice(pattern.length + 1))?.value : null;
    if (!at) continue;
    told++;
    if (!saysSame(quantity, at.means, scope)) return false;
  }
  return told > 0;
}

const fieldsKnown = new WeakMap<Place, string>();

/** The paths of a record's values. */
function fieldsOf(record: Place): string {
  const known = fieldsKnown.get(record);
  if (known !== undefined) return known;
  const paths: string[] = [];
  const visit = ({ value, children }: Place, path: string) => {
    if (value) paths.push(path);
    for (const [key, child] of children) visit(child, below(path, key));
  };
  visit(record, "");
  fieldsKnown.set(record, paths.join(" "));
  return paths.join(" ");
}

function spliced(text: string, { from, to }: Place, changes: readonly Change[]): string {
  let out = "";
  let at = from;
  for (const change of [...changes].sort((a, b) => a.from - b.from)) {
    out += text.slice(at, change.from) + change.text;
    at = Math.max(at, change.to);
  }
  return out + text.slice(at, to);
}
