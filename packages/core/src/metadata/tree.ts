/**
 * Text of any make -> one tree of records, lists and values, so that the rest need not know what it was written in.
 *
 * Recognised by content, not by a file's ending: JSON; XML; lines of `key = value` under section heads (in brackets, or a line of their
 * own with the keys indented below); otherwise a table with commas, semicolons, tabs or bars.
 * Holds: a tree is plain JSON; numbers that were written as text are numbers; no text is ever run or fetched.
 */
import { XMLParser } from "fast-xml-parser";
import Papa from "papaparse";
import { CaravanError } from "../model";

export type Leaf = string | number | boolean | null;
export type Tree = Leaf | readonly Tree[] | { readonly [key: string]: Tree };
export type Container = "json" | "xml" | "table" | "sections";

export interface ParsedMetadata {
  readonly container: Container;
  readonly tree: Tree;
}

const MOST_TEXT = 32 * 1_048_576; // characters; far beyond any sheet's description
const DEEPEST = 40;

/** Throws `bad-metadata` with what was tried. `where` names the file. */
export function parseMetadata(text: string, where: string): ParsedMetadata {
  const content = text.replace(/^\uFEFF/, "").trim();
  if (content === "") throw problem(where, "The file is empty.", "Export it again.");
  if (content.length > MOST_TEXT) throw problem(where, "It is longer than 32 MB.", "Give a file that describes one sheet.");
  if (content.startsWith("<")) return { container: "xml", tree: fromXml(content, where) };
  if (/^[{[]\s*["{[\d\]}-]/.test(content)) {
    const json = fromJson(content);
    if (json.ok) return { container: "json", tree: withNumbers(json.tree, 0, where) };
    if (content.startsWith("{")) throw problem(where, `It begins as JSON but is damaged: ${json.reason}.`, "Mend it or export it again.");
  }
  const sections = fromSections(content);
  if (sections) return { container: "sections", tree: sections };
  return { container: "table", tree: fromTable(content, where) };
}

export function problem(where: string, what: string, remedy: string, cause?: unknown): CaravanError {
  return new CaravanError("bad-metadata", where, what, remedy, { cause });
}

function fromJson(text: string): { ok: true; tree: unknown } | { ok: false; reason: string } {
  try {
    return { ok: true, tree: JSON.parse(text) };
  } catch (error) {
    return { ok: false, reason: error instanceof Error ? error.message : "unreadable" };
  }
}

/** Numbers and yes or no that stand as text become what they say; whatever else is not plain is dropped. */
function withNumbers(value: unknown, depth: number, where: string): Tree {
  if (depth > DEEPEST) throw problem(where, `It is nested more than ${DEEPEST} deep.`, "Give a flatter file.");
  if (Array.isArray(value)) return value.map((each) => withNumbers(each, depth + 1, where));
  if (typeof value === "object" && value !== null)
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, withNumbers(each, depth + 1, where)]));
  return typeof value === "string" ? leafOfQuoted(value) : typeof value === "number" || typeof value === "boolean" ? value : null;
}

const NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d{1,3})?$/i;

/** A value that stands in quotes: what its writer put there as text stays text, but for plain numbers, which many writers quote. */
export function leafOfQuoted(text: string): Tree {
  return /^(yes|no)$/i.test(text.trim()) ? text.trim() : leafOf(text);
}

/** `0001` is a name, not the number 1: written as a number it would come back as another text. */
const PADDED = /^[+-]?0\d/;

/** The number that a text spells, null if it spells none. */
export function numberOf(text: string): number | null {
  const trimmed = text.trim();
  return NUMBER.test(trimmed) ? Number(trimmed) : null;
}

/** A value from text: a number, yes or no, several numbers, or the text itself. */
export function leafOf(text: string): Tree {
  const trimmed = text.trim();
  if (PADDED.test(trimmed) && NUMBER.test(trimmed)) return trimmed;
  if (NUMBER.test(trimmed)) return Number(trimmed);
  if (/^(true|yes)$/i.test(trimmed)) return true;
  if (/^(false|no)$/i.test(trimmed)) return false;
  // `2, 4`, `{{1,2},{3,4}}`, `(0.5 1)`, `32x40`: nothing but numbers, brackets and what parts them. `x0 2` is a name.
  if (/\d/.test(trimmed) && /^(?![x×])[\d\s.,;:|+\-(){}[\]x×]+$/i.test(trimmed)) {
    const parts = trimmed
      .replace(/[(){}[\]]/g, " ")
      .split(/[\s,;:|x×]+/i)
      .filter((part) => part !== "");
    if (parts.length > 1 && parts.every((part) => NUMBER.test(part))) return parts.map(Number);
  }
  return trimmed;
}

type XmlNode = Record<string, unknown>;

function fromXml(text: string, where: string): Tree {
  // A type declaration may define entities, which unpack without bound or name other files; a bare one does no harm.
  if (/<!ENTITY|<!DOCTYPE[^>]*\[/i.test(text))
    throw problem(where, "The XML defines entities, which are not read.", "Export it without a document type definition.");
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: "",
    processEntities: true,
    // Numeric ones too, such as &#228;.
    htmlEntities: true,
    parseTagValue: false,
    parseAttributeValue: false,
    ignoreDeclaration: true,
    ignorePiTags: true,
    commentPropName: "#comment",
  });
  let nodes: XmlNode[];
  try {
    nodes = parser.parse(text, true) as XmlNode[];
  } catch (cause) {
    throw problem(
      where,
      `It begins as XML but is damaged: ${cause instanceof Error ? cause.message : "unreadable"}.`,
      "Mend it or export it again.",
      cause,
    );
  }
  return childrenOf(nodes, 0, where);
}

function nameOf(node: XmlNode): string {
  return Object.keys(node).find((key) => key !== ":@") ?? "";
}

function childrenOf(nodes: readonly XmlNode[], depth: number, where: string): Tree {
  if (depth > DEEPEST) throw problem(where, `It is nested more than ${DEEPEST} deep.`, "Give a flatter file.");
  const elements = nodes.filter((node) => !nameOf(node).startsWith("#"));
  const keyed = keyedPairs(elements, depth, where);
  if (keyed) return keyed;
  const lists = new Map<string, Tree[]>();
  for (const node of elements) {
    const name = nameOf(node);
    const list = lists.get(name) ?? [];
    lists.set(name, list);
    list.push(elementOf(node, depth, where));
  }
  return Object.fromEntries([...lists].map(([name, list]) => [name, list.length === 1 ? (list[0] as Tree) : list]));
}

/** `<key>a</key><value/><key>b</key><value/>`: names and what they stand for, in turn. */
function keyedPairs(elements: readonly XmlNode[], depth: number, where: string): Tree | null {
  const [first] = elements;
  if (!first || elements.length % 2 !== 0) return null;
  const keyName = nameOf(first);
  if (!elements.every((node, k) => (nameOf(node) === keyName) === (k % 2 === 0))) return null;
  const record: Record<string, Tree> = {};
  for (let k = 0; k < elements.length; k += 2) {
    const key = elementOf(elements[k] as XmlNode, depth, where);
    if (typeof key === "object") return null;
    const value = elements[k + 1] as XmlNode;
    const content = elementOf(value, depth, where);
    // `<true/>` says it by its name alone.
    record[String(key)] = content === "" && Object.keys(value).length === 1 ? leafOf(nameOf(value)) : content;
  }
  return record;
}

function elementOf(node: XmlNode, depth: number, where: string): Tree {
  const name = nameOf(node);
  const attributes = Object.entries((node[":@"] as Record<string, string> | undefined) ?? {});
  const inner = node[name] as XmlNode[];
  const text = inner.map((each) => (typeof each["#text"] === "string" ? (each["#text"] as string) : "")).join("");
  const children = childrenOf(inner, depth + 1, where) as Record<string, Tree>;
  const empty = Object.keys(children).length === 0;
  if (attributes.length === 0) return empty ? leafOf(text) : children;
  const record = { ...Object.fromEntries(attributes.map(([key, value]) => [key, leafOf(String(value))])), ...children };
  return text.trim() === "" ? record : { ...record, text: leafOf(text) };
}

/** A line that says nothing. */
export const REMARK = /^\s*([#;]|\/\/)/;
/** A key and a value. */
export const PAIR = /^\s*([^=:]+?)\s*[=:]\s*(.*?)\s*$/;

/** The name of the section that a line begins, in brackets or by itself; null if it begins none. */
export function headOf(line: string): string | null {
  const inBrackets = /^\s*\[\s*(.+?)\s*\]\s*$/.exec(line)?.[1];
  return inBrackets ?? (/^[^\s=:,;\t|]+(\.[a-z]+)?\s*:?\s*$/.test(line) ? line.trim().replace(/:$/, "") : null);
}

/** Sections of `key = value` or `key: value`; null if the text does not look so. */
function fromSections(text: string): Tree | null {
  const lines = text.split(/\r?\n/);
  const record: Record<string, Tree> = {};
  const counts = new Map<string, number>();
  let section: Record<string, Tree> | null = null;
  let heads = 0;
  let pairs = 0;
  let strangers = 0;
  for (const line of lines) {
    if (REMARK.test(line) || line.trim() === "") continue;
    const head = headOf(line);
    if (head !== null) {
      heads++;
      section = {};
      // A section that comes again is another record of the same name.
      const count = (counts.get(head) ?? 0) + 1;
      counts.set(head, count);
      record[count === 1 ? head : `${head} (${count})`] = section;
      continue;
    }
    const pair = PAIR.exec(line);
    if (!pair) {
      strangers++;
      continue;
    }
    pairs++;
    const quoted = /^"(.*)"$/.exec(pair[2] as string)?.[1];
    (section ?? record)[pair[1] as string] = quoted === undefined ? leafOf(pair[2] as string) : leafOfQuoted(quoted);
  }
  return pairs >= 2 && heads >= 1 && strangers <= pairs / 4 ? record : null;
}

/** How a table is taken apart. */
export const TABLE = {
  skipEmptyLines: "greedy",
  comments: "#",
  delimitersToGuess: [",", ";", "\t", "|"],
} as const satisfies Papa.ParseConfig;

/** What a table's columns are called, and which row is the first that is no head. */
export function tableHeads(rows: readonly (readonly string[])[]): { heads: readonly string[]; first: 0 | 1 } {
  const [first = [], second] = rows;
  const isHead = first.every((cell) => !NUMBER.test(cell.trim())) && (second?.some((cell) => NUMBER.test(cell.trim())) ?? false);
  return { heads: first.map((cell, k) => (isHead && cell.trim()) || String(k)), first: isHead ? 1 : 0 };
}

/** Rows of a table as records by their heads; without heads the columns are called 0, 1, 2 … */
function fromTable(text: string, where: string): Tree {
  const parsed = Papa.parse<string[]>(text, TABLE);
  const rows = parsed.data.filter((row) => row.some((cell) => cell.trim() !== ""));
  const [first] = rows;
  if (!first || first.length < 2)
    throw problem(
      where,
      "It is none of JSON, XML, sections of key = value, or a table.",
      "Give a file that lists the rectangles of the frames in one of these forms.",
    );
  const table = tableHeads(rows);
  return rows.slice(table.first).map((row) => Object.fromEntries(table.heads.map((head, k) => [head, leafOf(row[k] ?? "")])));
}
