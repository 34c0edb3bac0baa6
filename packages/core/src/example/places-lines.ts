/** Locates values in line-based texts: sections of pairs, and tables. See `parseMetadata` for how they are read. */
import Papa from "papaparse";
import { decimalColumns, headOf, leafOf, listedSections, PAIR, REMARK, TABLE, tableHeads, withPoint } from "../notation";
import { NO_CHILDREN, numbersIn, type Place, type Spelled } from "./place";

interface Line {
  readonly from: number;
  readonly text: string;
}

function linesOf(text: string): Line[] {
  return [...text.matchAll(/[^\r\n]+/g)].map((match) => ({ from: match.index, text: match[0] }));
}

interface Section {
  readonly name: string;
  readonly from: number;
  to: number;
  readonly key: Spelled;
  readonly children: Map<string, Place>;
}

export function placesInSections(text: string): Place {
  const root = new Map<string, Place>();
  const sections: Section[] = [];
  for (const line of linesOf(text)) {
    if (REMARK.test(line.text) || line.text.trim() === "") continue;
    const to = line.from + line.text.trimEnd().length;
    const head = headOf(line.text);
    if (head !== null) {
      const at = line.from + line.text.indexOf(head);
      const key: Spelled = { from: at, to: at + head.length, means: head, as: line.text.trim().startsWith("[") ? "plain" : "head" };
      sections.push({ name: head, from: line.from, to, key, children: new Map() });
      continue;
    }
    const pair = PAIR.exec(line.text);
    if (!pair) continue;
    const [name, value] = [pair[1] as string, pair[2] as string];
    const from = to - value.length;
    const says = /^"(.*)"$/.exec(value)?.[1] ?? value;
    const section = sections.at(-1);
    (section?.children ?? root).set(name, { from: line.from, to, key: null, ...spelled(text, from, to, says) });
    if (section) section.to = to;
  }
  const listed = listedSections(sections.map(({ name, children }) => ({ name, fields: [...children.keys()].join("\n") })));
  for (const name of new Set(sections.map((section) => section.name))) {
    const own = sections.filter((section) => section.name === name);
    const places = own.map(({ from, to, key, children }): Place => ({ from, to, key, children, value: null, list: false }));
    root.set(name, listed.has(name) ? together(places) : (places[0] as Place));
  }
  return { from: 0, to: text.length, key: null, value: null, list: false, children: root };
}

/** Sections of one name are one list. */
function together(places: readonly Place[]): Place {
  const children = new Map(places.map((place, k): [string, Place] => [String(k), { ...place, key: null }]));
  return { from: places[0]?.from ?? 0, to: places.at(-1)?.to ?? 0, key: null, value: null, list: true, children };
}

function spelled(
  text: string,
  from: number,
  to: number,
  says: string,
  as: "plain" | "cell" | "comma" = "plain",
): Pick<Place, "value" | "list" | "children"> {
  const means = leafOf(as === "comma" ? withPoint(says) : says);
  if (Array.isArray(means)) return { value: null, list: true, children: numbersIn(text.slice(from, to), from) };
  return { value: { from, to, means: means as Spelled["means"], as }, list: false, children: NO_CHILDREN };
}

export function placesInTable(text: string): Place {
  const { delimiter } = Papa.parse<string[]>(text, TABLE).meta;
  const rows = rowsOf(text, delimiter);
  const says = rows.map((row) => row.cells.map((cell) => cell.says));
  const { heads, first } = tableHeads(says);
  const decimal = decimalColumns(heads, says.slice(first), delimiter);
  const children = rows.slice(first).map((row, k): [string, Place] => {
    const cells = heads.map((head, column): [string, Place] => {
      const cell = row.cells[column] ?? { from: row.to, to: row.to, says: "" };
      return [
        head,
        {
          from: cell.from,
          to: cell.to,
          key: null,
          ...spelled(text, cell.from, cell.to, cell.says, decimal.has(column) ? "comma" : "cell"),
        },
      ];
    });
    return [String(k), { from: row.from, to: row.to, key: null, value: null, list: false, children: new Map(cells) }];
  });
  return { from: 0, to: text.length, key: null, value: null, list: true, children: new Map(children) };
}

interface Row {
  readonly from: number;
  readonly to: number;
  readonly cells: { readonly from: number; readonly to: number; readonly says: string }[];
}

/** Rows that are neither comments nor blank. A quoted cell may contain anything, with a doubled quote for a quote. */
function rowsOf(text: string, delimiter: string): Row[] {
  const cell = new RegExp(`("(?:[^"]|"")*"|[^\\r\\n${delimiter}]*)([${delimiter}]|\\r?\\n|\\r|$)`, "y");
  const rows: Row[] = [];
  let at = 0;
  while (at < text.length) {
    if (text[at] === "#") {
      const end = text.slice(at).search(/[\r\n]/);
      at = end < 0 ? text.length : at + end + 1;
      continue;
    }
    const cells: Row["cells"] = [];
    for (let ended = false; !ended; ) {
      cell.lastIndex = at;
      const match = cell.exec(text);
      // A quote that does not end: the parser has another opinion of this table, which shows when the trees are compared.
      if (!match) return rows;
      const raw = match[1] as string;
      cells.push({ from: at, to: at + raw.length, says: raw.startsWith('"') ? raw.slice(1, -1).replaceAll('""', '"') : raw });
      at += match[0].length;
      ended = match[2] !== delimiter;
    }
    const last = cells.at(-1) as Row["cells"][number];
    if (cells.some(({ says }) => says.trim() !== "")) rows.push({ from: cells[0]?.from ?? last.from, to: last.to, cells });
  }
  return rows;
}
