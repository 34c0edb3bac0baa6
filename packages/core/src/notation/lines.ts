/**
 * Reads records from a text whose lines repeat a pattern: `sprite walk_0 at 2 2 size 20 34`.
 *
 * A line is split into words, numbers, strings and signs. Lines with the same kinds in the same order share a pattern; a word that most of
 * them have at the same place is part of it, anything that varies is a field, named by the constant words before it. Lines that alternate
 * (a name, then its place, then its size) form one record. This needs no knowledge of the writer. Cost: O(text) for splitting and grouping.
 */
import { type Atom, leafOfAtom, type Token, tokensOf } from "./lexer";
import { LONGEST_PATTERN, Members, type Tree } from "./tree";

interface Line {
  readonly tokens: readonly Token[];
  /** The kinds of its tokens, with runs of equal kinds as one: what similar lines share. */
  readonly make: string;
}

/** Records by the pattern of their lines, `line 0`, `line 1` …, and by blocks of lines; null if no pattern repeats. */
export function fromLines(text: string): Tree | null {
  if (text.length > LONGEST_PATTERN) return null;
  const lines = linesOf(text);
  const makes = makesOf(lines);
  const members = new Members();
  const repeated = [...makes.values()].filter((make) => make.lines.length > 1 && !areFacts(make));
  if (repeated.length === 0) return null;
  // A single line applies to all records.
  for (const { tokens } of [...makes.values()].filter((make) => areFacts(make)).flatMap((make) => make.lines)) {
    const [name, ...values] = tokens.filter(
      (token): token is Atom => token.kind === "word" || token.kind === "string" || token.kind === "number",
    );
    if (name && values.length > 0)
      members.add(String(name.value), values.length === 1 ? leafOfAtom(values[0] as Atom) : values.map(leafOfAtom));
  }
  const known = new Map(repeated.flatMap((make) => make.lines.map((line) => [line, make] as const)));
  for (const [k, block] of blocksOf(lines, known).entries()) members.add(`block ${k}`, block);
  for (const [k, make] of repeated.entries())
    members.add(
      `line ${k}`,
      make.lines.map((line) => fieldsOf(line, make)),
    );
  return members.record();
}

/** Whether lines are a name and a number each, no two names alike: `width 24`, not records of one make. */
function areFacts({ lines }: Make): boolean {
  if (!lines.every(({ make }) => /^W[=:]?N\+?$/.test(make))) return false;
  return (
    new Set(lines.map(({ tokens }) => tokens[0]?.value)).size === lines.length &&
    lines.every(({ tokens }) => !/\d$/.test(String(tokens[0]?.value)))
  );
}

function linesOf(text: string): Line[] {
  const lines: Line[] = [];
  let tokens: Token[] = [];
  const end = () => {
    if (tokens.some(({ kind }) => kind === "word" || kind === "number" || kind === "string")) lines.push({ tokens, make: makeOf(tokens) });
    tokens = [];
  };
  for (const token of tokensOf(text)) {
    if (token.kind === "newline") end();
    else tokens.push(token);
  }
  end();
  return lines;
}

function makeOf(tokens: readonly Token[]): string {
  let make = "";
  let last = "";
  for (const token of tokens) {
    const sign = signOf(token);
    if (sign !== last || !"WN".includes(sign)) make += sign;
    last = sign;
  }
  // `2, 2, 20, 34` is a run as well as `2 2 20 34` is.
  return make.replace(/([WN])(?:,\1)+/g, "$1+");
}

function signOf({ kind, value }: Token): string {
  return kind === "word" || kind === "string" ? "W" : kind === "number" ? "N" : kind === "note" ? "" : String(value);
}

interface Make {
  readonly lines: readonly Line[];
  /** Words that most of its lines have at the same place, by that place. */
  readonly constants: ReadonlySet<string>;
}

/** The position of a token in a line: the run of equal tokens, and its index there. */
function placesOf(tokens: readonly Token[]): string[] {
  let run = 0;
  let within = 0;
  let last = "";
  return tokens.map((token) => {
    const sign = signOf(token);
    if (sign === last) within++;
    else {
      run++;
      within = 0;
    }
    last = sign;
    return `${run}.${within}`;
  });
}

function makesOf(lines: readonly Line[]): Map<string, Make> {
  const byMake = new Map<string, Line[]>();
  for (const line of lines) {
    const first = line.tokens[0];
    // The first word is often a keyword; if so, it distinguishes patterns.
    const key = `${line.make} ${first?.kind === "word" && isCommon(lines, first.value) ? first.value : ""}`;
    const list = byMake.get(key) ?? [];
    byMake.set(key, list);
    list.push(line);
  }
  return new Map([...byMake].map(([key, list]) => [key, { lines: list, constants: constantsOf(list) }]));
}

const firstWords = new WeakMap<readonly Line[], Map<string, number>>();

/** Whether several lines begin with a word. */
function isCommon(lines: readonly Line[], word: string): boolean {
  let counts = firstWords.get(lines);
  if (!counts) {
    counts = new Map();
    for (const { tokens } of lines) {
      const [first] = tokens;
      if (first?.kind === "word") counts.set(first.value, (counts.get(first.value) ?? 0) + 1);
    }
    firstWords.set(lines, counts);
  }
  return (counts.get(word) ?? 0) > 1;
}

function constantsOf(lines: readonly Line[]): Set<string> {
  const counts = new Map<string, number>();
  for (const { tokens } of lines) {
    const places = placesOf(tokens);
    for (const [k, token] of tokens.entries())
      if (token.kind === "word") {
        const key = `${places[k]} ${token.value}`;
        counts.set(key, (counts.get(key) ?? 0) + 1);
      }
  }
  return new Set([...counts].filter(([, count]) => count > 1 && count > lines.length * 0.6).map(([key]) => key));
}

/** The varying values of a line, named by the constant words before them, or by position if there are none. */
function fieldsOf({ tokens }: Line, { constants }: Make): Tree {
  const places = placesOf(tokens);
  const members = new Members();
  let name: string | null = null;
  let values: Tree[] = [];
  let count = 0;
  const end = () => {
    if (values.length > 0) members.add(name ?? String(count), values.length === 1 ? (values[0] as Tree) : values);
    if (name !== null && values.length === 0 && members.size > 0) members.add(name, true);
    values = [];
  };
  for (const [k, token] of tokens.entries()) {
    if (token.kind === "note" && token.value !== "") members.add("note", token.value);
    if (token.kind !== "word" && token.kind !== "string" && token.kind !== "number") continue;
    if (token.kind === "word" && constants.has(`${places[k]} ${token.value}`)) {
      end();
      name = token.value;
    } else {
      // Adjacent text and numbers without a word between are separate fields.
      const kind = token.kind === "number" ? "number" : "string";
      if (name === null && values.length > 0 && typeof values[0] !== kind) {
        end();
        count++;
      }
      values.push(leafOfAtom(token as Atom));
    }
  }
  end();
  return members.record();
}

/** As many makes as are tried as the opener of a block. */
const MOST_OPENERS = 12;

/**
 * Lines that follow each other in turn as one record each, beginning with every make that opens one. Lines of one make that follow each other
 * inside a block are a list of it: the steps of a clip.
 */
function blocksOf(lines: readonly Line[], known: ReadonlyMap<Line, Make>): Tree[] {
  const found: Tree[] = [];
  const tried = new Map<Make, number>();
  const numbers = new Map<Make, number>([...new Set(known.values())].map((make, k) => [make, k]));
  for (const first of lines) {
    const opener = known.get(first);
    if (!opener || tried.has(opener)) continue;
    tried.set(opener, tried.size);
    if (tried.size > MOST_OPENERS) break;
    const blocks: Run[][] = [];
    for (const line of lines) {
      const make = known.get(line);
      if (make === opener) blocks.push([{ make, lines: [line] }]);
      else if (make) {
        const block = blocks.at(-1);
        const last = block?.at(-1);
        if (last?.make === make) last.lines.push(line);
        else block?.push({ make, lines: [line] });
      }
    }
    const shapes = new Map<string, number>();
    for (const block of blocks) {
      const shape = block.map(({ make }) => numbers.get(make)).join();
      shapes.set(shape, (shapes.get(shape) ?? 0) + 1);
    }
    const usual = Math.max(...shapes.values());
    if (usual < blocks.length * 0.5 || blocks.every((block) => block.length === 1)) continue;
    const listed = new Set(blocks.flatMap((block) => block.filter((run) => run.lines.length > 1).map(({ make }) => make)));
    found.push(blocks.map((block) => blockRecord(block, listed)));
  }
  return found;
}

/** Lines of one make that follow each other. */
interface Run {
  readonly make: Make;
  readonly lines: Line[];
}

function blockRecord(block: readonly Run[], listed: ReadonlySet<Make>): Tree {
  const members = new Members();
  for (const [k, { make, lines }] of block.entries()) {
    if (listed.has(make)) {
      const word = lines[0]?.tokens.find((token) => token.kind === "word");
      members.add(
        `${word?.value ?? "lines"}s`,
        lines.map((line) => fieldsOf(line, make)),
      );
      continue;
    }
    for (const [key, value] of Object.entries(fieldsOf(lines[0] as Line, make) as { [key: string]: Tree }))
      members.add(/^\d+$/.test(key) ? (k === 0 && key === "0" ? "head" : `${k} ${key}`) : key, value);
  }
  return members.record();
}
