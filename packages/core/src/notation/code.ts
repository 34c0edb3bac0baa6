/**
 * Parses tables of programming languages, style sheets, resource text and nested parentheses: anything with nested brackets.
 *
 * One lenient grammar serves all. A group is the content of brackets; commas, semicolons and (in braces and outside) line ends separate its
 * items; `=`, `:`, `=>` and `->` separate a name from its value; words before a group name it: `Rect(0, 0, 16, 16)`, `.walk { … }`, `(rect
 * 0 0 16 16)`. Repeated names become lists. Nothing is executed. Cost: O(text).
 */
import { type Atom, leafOfAtom, type Token, tokensOf } from "./lexer";
import { DEEPEST, LONGEST_PATTERN, Members, type Tree, tooDeep } from "./tree";

/** Null if brackets do not match, or nothing nests. Throws if it is nested too deep; `where` names the file. */
export function fromCode(text: string, where: string): Tree | null {
  if (text.length > LONGEST_PATTERN) return null;
  const tokens = tokensOf(text);
  const reader: Cursor = { tokens, at: 0, where, failed: false };
  const entries = itemsOf(reader, null, 0);
  if (reader.failed) return null;
  const tree = treeOfEntries(entries);
  return typeof tree === "object" ? tree : null;
}

interface Cursor {
  readonly tokens: readonly Token[];
  at: number;
  readonly where: string;
  failed: boolean;
}

interface Group {
  readonly kind: "group";
  readonly open: string;
  readonly entries: readonly Entry[];
}
type Part = Atom | Group | { readonly kind: "operator"; readonly value: string };

/** What an item says: a value, under a name, or under a name inside another. */
interface Entry {
  readonly path: readonly string[];
  readonly value: Tree;
}

const CLOSING: Readonly<Record<string, string>> = { "(": ")", "[": "]", "{": "}" };

function itemsOf(cursor: Cursor, open: string | null, depth: number): Entry[] {
  if (depth > DEEPEST) throw tooDeep(cursor.where);
  const entries: Entry[] = [];
  let parts: Part[] = [];
  let above: string | null = null; // a note on the lines before
  const endItem = () => {
    const found = entriesOf(parts);
    const first = found[0];
    if (above !== null && first) {
      // In front of a record it is of that; in front of the first field it is of the record that the field is in.
      if (typeof first.value === "object" && first.value !== null) found[0] = noted(first, above);
      else if (entries.length === 0 && first.path.length > 0 && isNote(above)) entries.push({ path: ["note"], value: above });
    }
    entries.push(...found);
    if (parts.length > 0) above = null;
    parts = [];
  };
  let lineOf = -1; // how many entries there were when the line began
  for (; cursor.at < cursor.tokens.length; cursor.at++) {
    const token = cursor.tokens[cursor.at] as Token;
    switch (token.kind) {
      case "newline": {
        if ((open === null || open === "{") && !goesOn(parts, nextOf(cursor))) endItem();
        lineOf = entries.length;
        break;
      }
      case "note": {
        // Behind an item it belongs to that, alone on its line to the next.
        if (parts.length > 0 && (open === null || open === "{")) {
          const before = entries.length;
          endItem();
          if (entries.length > before) entries[entries.length - 1] = noted(entries.at(-1) as Entry, token.value);
        } else if (parts.length === 0 && entries.length > Math.max(0, lineOf))
          entries[entries.length - 1] = noted(entries.at(-1) as Entry, token.value);
        else if (parts.length === 0) above = token.value;
        break;
      }
      case "open": {
        cursor.at++;
        parts.push({ kind: "group", open: token.value, entries: itemsOf(cursor, token.value, depth + 1) });
        if (cursor.failed) return entries;
        const next = cursor.tokens[cursor.at + 1];
        if (token.value === "{" && next?.kind !== "mark" && next?.kind !== "note" && open !== "(") endItem();
        break;
      }
      case "close": {
        if (open === null || CLOSING[open] !== token.value) {
          cursor.failed = true;
          return entries;
        }
        endItem();
        return entries;
      }
      case "mark": {
        if (token.value === "," || token.value === ";") endItem();
        else if (parts.length > 0) parts.push({ kind: "operator", value: token.value });
        break;
      }
      default:
        parts.push(token);
    }
  }
  if (open !== null) cursor.failed = true;
  endItem();
  return entries;
}

function nextOf({ tokens, at }: Cursor): Token | undefined {
  let k = at + 1;
  while (tokens[k]?.kind === "newline" || tokens[k]?.kind === "note") k++;
  return tokens[k];
}

/** Whether an item continues on the next line: its value or group is still missing. */
function goesOn(parts: readonly Part[], next: Token | undefined): boolean {
  const last = parts.at(-1);
  if (last?.kind === "operator") return true;
  return last !== undefined && last.kind !== "group" && next?.kind === "open" && next.value === "{";
}

function isNote(note: string): boolean {
  return note !== "" && note.length <= 60;
}

function noted({ path, value }: Entry, note: string): Entry {
  if (!isNote(note) || typeof value !== "object" || value === null || "note" in value) return { path, value };
  return { path, value: { ...(Array.isArray(value) ? Object.fromEntries(value.entries()) : value), note } };
}

function entriesOf(parts: readonly Part[]): Entry[] {
  if (parts.length === 0) return [];
  const assigned = parts.findIndex((part) => part.kind === "operator" && part.value === "=");
  const at = assigned > 0 ? assigned : parts.findIndex((part) => part.kind === "operator");
  if (at > 0) {
    const typed = parts.findIndex((part) => part.kind === "operator");
    const path = nameOf(parts.slice(0, typed < 0 ? at : typed), parts[at]?.kind === "operator" && (parts[at] as { value: string }).value);
    return [{ path, value: valueIn(parts.slice(at + 1)) }];
  }
  const plain = parts.filter((part): part is Atom | Group => part.kind !== "operator");
  const leading = plain.findIndex((part) => part.kind === "group");
  if (leading < 0) return atomsAlone(plain as Atom[]);
  const names = plain.slice(0, leading) as Atom[];
  if (names.length === 0) {
    const [only] = plain;
    if (plain.length === 1 && only?.kind === "group") return [{ path: [], value: treeOfGroup(only) }];
    return [{ path: [], value: merged(plain) }];
  }
  const words = names.filter(({ kind, value }) => kind !== "number" && !KEYWORDS.has(String(value)));
  // A number before a group is a value beside it, not a name.
  if (names.some(({ kind }) => kind === "number") && words.length === 0) return [{ path: [], value: merged(plain) }];
  const rest = plain.slice(leading);
  const path = pathOf(words.map(({ value }) => String(value)));
  const value = rest.length === 1 ? treeOfGroup(rest[0] as Group) : merged(rest);
  return [{ path, value }];
}

/** Words of languages that name nothing. */
const KEYWORDS = new Set(["new", "return", "const", "let", "var", "local", "static", "final", "public", "private", "export", "default"]);

function pathOf(words: readonly string[]): string[] {
  const clean = words.map(selectorName);
  return clean.length <= 2 ? clean : [clean[0] as string, clean.at(-1) as string];
}

/** `.walk` and `#walk` of style sheets name walk. */
function selectorName(word: string): string {
  return word.replace(/^[.#](?=[\p{L}_])/u, "");
}

function atomsAlone(atoms: readonly Atom[]): Entry[] {
  const [first] = atoms;
  if (!first) return [];
  if (atoms.length === 1) return [{ path: [], value: leafOfAtom(first) }];
  const labelled = labelledIn(atoms);
  if (labelled) return [{ path: [], value: labelled }];
  const rest = atoms.slice(1);
  if (first.kind === "word" && !KEYWORDS.has(first.value))
    return [{ path: [selectorName(first.value)], value: rest.length === 1 ? leafOfAtom(rest[0] as Atom) : rest.map(leafOfAtom) }];
  return [{ path: [], value: atoms.map(leafOfAtom) }];
}

/** `sprite walk at 2 2 size 20 34`: words with numbers behind them name these, a word in front of them its neighbour; null if fewer than two do. */
function labelledIn(atoms: readonly Atom[]): Tree | null {
  const isLabel = (k: number) => atoms[k]?.kind === "word" && atoms[k + 1]?.kind === "number";
  const labels = atoms.filter((_, k) => isLabel(k)).length;
  if (labels < 2 || atoms[0]?.kind !== "word") return null;
  const members = new Members();
  for (let k = 0; k < atoms.length; ) {
    const name = String((atoms[k] as Atom).value);
    const values: Tree[] = [];
    const plain = isLabel(k);
    for (k++; k < atoms.length && !isLabel(k) && (!plain || atoms[k]?.kind === "number"); k++) values.push(leafOfAtom(atoms[k] as Atom));
    members.add(name, values.length === 1 ? (values[0] as Tree) : values);
  }
  return members.record();
}

/** The name before `=` or `:`: its last word, `["a"]`, `frames["a"]`, or `frames.a` in an assignment. */
function nameOf(parts: readonly Part[], operator: string | false): string[] {
  const last = parts.at(-1);
  if (last?.kind === "group") {
    const inner = treeOfGroup(last);
    const leaf = Array.isArray(inner) && inner.length === 1 ? inner[0] : inner;
    const before = parts.slice(0, -1).findLast((part) => part.kind === "word");
    if (typeof leaf === "string" || typeof leaf === "number") return [...(before?.kind === "word" ? [before.value] : []), String(leaf)];
    return before?.kind === "word" ? [before.value] : ["value"];
  }
  if (last === undefined || last.kind === "operator") return ["value"];
  const name = selectorName(String(last.value));
  if (operator === "=" && last.kind === "word" && /^[\p{L}_]\w*(\.\w+)+$/u.test(name) && !/\.(png|webp|gif|jpe?g)$/i.test(name))
    return pathOf(name.split("."));
  return [name];
}

function valueIn(parts: readonly Part[]): Tree {
  const values: Tree[] = [];
  for (const [k, part] of parts.entries()) {
    if (part.kind === "operator") continue;
    const next = parts[k + 1];
    // `Rect(…)`, `Frame { … }`: where a value is expected, its kind says nothing.
    if (part.kind === "word" && next?.kind === "group") continue;
    if (part.kind === "word" && KEYWORDS.has(part.value) && parts.length > 1) continue;
    values.push(part.kind === "group" ? single(treeOfGroup(part)) : leafOfAtom(part));
  }
  return values.length === 1 ? (values[0] as Tree) : values;
}

function single(tree: Tree): Tree {
  return Array.isArray(tree) && tree.length === 1 && (typeof tree[0] !== "object" || tree[0] === null) ? (tree[0] as Tree) : tree;
}

function treeOfGroup({ open, entries }: Group): Tree {
  const [only] = entries;
  // `(2 2 20 34)`: the brackets and the item are the same list.
  if (entries.length === 1 && only?.path.length === 0 && Array.isArray(only.value) && open === "(") return only.value;
  return treeOfEntries(entries);
}

/** Several parts in a row: named ones are merged, the others keep their places. */
function merged(parts: readonly (Atom | Group)[]): Tree {
  const entries = parts.flatMap((part): Entry[] => {
    if (part.kind !== "group") return [{ path: [], value: leafOfAtom(part) }];
    return part.entries.every(({ path }) => path.length > 0) ? [...part.entries] : [{ path: [], value: treeOfGroup(part) }];
  });
  return treeOfEntries(entries);
}

function treeOfEntries(entries: readonly Entry[]): Tree {
  if (entries.every(({ path }) => path.length === 0)) return entries.map(({ value }) => value);
  const members = new Members();
  const inside = new Map<string, Members>();
  for (const [k, { path, value }] of entries.entries()) {
    const [first = String(k), second] = path;
    if (second === undefined) members.add(first, value);
    else {
      const list = inside.get(first) ?? new Members();
      inside.set(first, list);
      list.add(second, value);
    }
  }
  for (const [first, list] of inside) members.add(first, list.record());
  return members.record();
}
