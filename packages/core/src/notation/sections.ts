/**
 * Parses lines of `key = value` or `key: value` under section heads: in brackets, or a line of their own with indented keys below.
 *
 * A key that repeats within a section is a list there and in every other section; a section that repeats is another record with the same
 * name. A head may have fields of its own (`[part kind="a" id=2]`), and a value in brackets may span lines.
 */
import { fromCode } from "./code";
import { constantsAsPairs } from "./flat";
import { leafOf, leafOfQuoted } from "./leaf";
import { Members, type Tree } from "./tree";

/** A line that says nothing. */
export const REMARK = /^\s*([#;]|\/\/)/;
/** A key and a value. */
export const PAIR = /^\s*([^=:]+?)\s*[=:]\s*(.*?)\s*$/;

/** A description of 100,000 frames; longer texts of this kind are something else. */
const LONGEST = 8 * 1_048_576; // characters

/** Longer lines are no heads and no pairs: matching them would cost time. */
const LONGEST_LINE = 20_000;

/** The section name on a line, in brackets or alone; null if the line begins no section. */
export function headOf(line: string): string | null {
  if (line.length > LONGEST_LINE) return null;
  const inBrackets = /^\s*\[\s*([^\s].*?)\s*\]\s*$/.exec(line)?.[1];
  return inBrackets ?? (/^[^\s=:,;\t|]+(\.[a-z]+)?\s*:?\s*$/.test(line) ? line.trim().replace(/:$/, "") : null);
}

/** Null if the text does not look so. `where` names the file. */
export function fromSections(text: string, where: string): Tree | null {
  if (text.length > LONGEST) return null;
  const root = new Members();
  const sections: { readonly name: string; readonly members: Members }[] = [];
  let here = root;
  let pairs = 0;
  let strangers = 0;
  const lines = (constantsAsPairs(text) ?? text).split(/\r?\n/);
  for (let k = 0; k < lines.length; k++) {
    const line = lines[k] as string;
    if (REMARK.test(line) || line.trim() === "") continue;
    const head = headOf(line);
    if (head !== null) {
      const { name, fields } = headFields(head);
      here = new Members();
      for (const [key, value] of fields) here.add(key, value);
      sections.push({ name, members: here });
      continue;
    }
    const pair = line.length > LONGEST_LINE ? null : PAIR.exec(line);
    // Several words in front of a value are a statement of some language, not a key.
    if (!pair || (pair[1] as string).split(/\s+/).length > MOST_WORDS) {
      strangers++;
      continue;
    }
    pairs++;
    const [value, last] = valueFrom(lines, k, pair[2] as string, where);
    k = last;
    here.add(pair[1] as string, value);
  }
  const always = new Set(sections.flatMap(({ members }) => members.repeated()));
  const listed = sections.length === 0 && pairs >= 2;
  if (pairs < 2 || strangers > pairs / 4 || (sections.length === 0 && !listed)) return null;
  for (const { name, members } of sections) root.add(name, members.record(always));
  return root.record(listedSections(sections.map(({ name, members }) => ({ name, fields: members.names() }))));
}

/** Names of sections that repeat, and of those with the same fields: one such record is a list of one. */
export function listedSections(sections: readonly { readonly name: string; readonly fields: string }[]): Set<string> {
  const counts = new Map<string, number>();
  for (const { name } of sections) counts.set(name, (counts.get(name) ?? 0) + 1);
  const shapes = new Set(sections.filter(({ name }) => (counts.get(name) ?? 0) > 1).map(({ fields }) => fields));
  return new Set(sections.filter(({ fields }) => shapes.has(fields)).map(({ name }) => name));
}

/** `part kind="a" id=2` is a section `part` with two fields; anything else is a name. */
function headFields(head: string): { name: string; fields: [string, Tree][] } {
  const name = /^([^\s="]+)\s+\S+\s*=/.exec(head)?.[1];
  if (name === undefined) return { name: head, fields: [] };
  const fields = [...head.slice(name.length).matchAll(/([^\s="]+)\s*=\s*("[^"]*"|[^\s"]+)/g)];
  return { name, fields: fields.map((each) => [each[1] as string, valueIn(each[2] as string, "")]) };
}

/** `a, 74, 4, true`: several values with at least two numbers; null for a possible sentence. */
function mixedList(text: string): Tree | null {
  const parts = text.split(/\s*[,;|]\s*/);
  if (parts.length < 3) return null;
  const leaves = parts.map((part) => leafOf(part));
  const numbers = leaves.filter((each) => typeof each === "number").length;
  return numbers >= 2 && numbers >= leaves.length / 2 ? leaves : null;
}

const MOST_WORDS = 3;

const MOST_LINES = 20_000;

/** The value that begins here, and the line where it ends: open brackets continue over lines. */
function valueFrom(lines: readonly string[], from: number, first: string, where: string): [Tree, number] {
  let open = balance(first);
  if (open <= 0) return [valueIn(first, where), from];
  const parts = [first];
  for (let k = from + 1; k < lines.length && k < from + MOST_LINES; k++) {
    const line = lines[k] as string;
    parts.push(line);
    open += balance(line);
    if (open <= 0) return [valueIn(parts.join("\n"), where), k];
  }
  return [leafOf(first), from];
}

function balance(text: string): number {
  let open = 0;
  for (const sign of text.replace(/"(?:[^"\\]|\\.)*"/g, "")) open += "([{".includes(sign) ? 1 : ")]}".includes(sign) ? -1 : 0;
  return open;
}

function valueIn(text: string, where: string): Tree {
  const quoted = /^"([^"]*)"$/.exec(text)?.[1];
  if (quoted !== undefined) return leafOfQuoted(quoted);
  const leaf = leafOf(text);
  if (typeof leaf === "string" && !/[([{"]/.test(text)) return mixedList(text) ?? leaf;
  if (typeof leaf !== "string" || !/[([{]/.test(text)) return leaf;
  const tree = fromCode(`value = ${text}`, where) as { readonly value?: Tree } | null;
  return tree?.value ?? leaf;
}
