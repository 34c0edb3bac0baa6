/**
 * Parses text of any notation into trees of records, lists and values, so that other code need not know the notation.
 *
 * Recognised by content, not by file extension. A text may fit several notations; trying them shows which one describes frames. Holds: a
 * tree is plain JSON; numbers written as text are numbers; no text is ever executed or fetched.
 */

import type { CaravanError } from "../model";
import { t } from "../words";
import { fromCode } from "./code";
import { withFlatRecords } from "./flat";
import { fromJson } from "./json";
import { fromLines } from "./lines";
import { fromSections } from "./sections";
import { fromBlankTable, fromTable } from "./table";
import { fromToml } from "./toml";
import { LONGEST_PATTERN, problem, type Tree } from "./tree";
import { fromXml } from "./xml";
import { fromYaml } from "./yaml";

/** Ways of writing, the plainer first. `code` is anything in brackets, `columns` a table parted by blanks, `lines` lines that repeat a pattern. */
const CONTAINERS = ["json", "xml", "sections", "toml", "yaml", "table", "columns", "code", "lines"] as const;
export type Container = (typeof CONTAINERS)[number];

export interface ParsedMetadata {
  readonly container: Container;
  readonly tree: Tree;
}

const MOST_TEXT = 32 * 1_048_576; // characters; far beyond any sheet's description

/** Texts up to this length are tried whatever they contain. */
const SHORT = 10_000; // characters

const READERS: Readonly<Record<Container, (text: string, where: string) => Tree | null>> = {
  json: (text, where) => {
    const outcome = fromJson(text, where);
    return outcome.ok ? outcome.tree : null;
  },
  xml: fromXml,
  sections: fromSections,
  toml: fromToml,
  yaml: fromYaml,
  table: fromTable,
  columns: fromBlankTable,
  code: fromCode,
  lines: fromLines,
};

/** The first notation that the text is written in. Throws `bad-metadata` with what was tried. `where` names the file. */
export function parseMetadata(text: string, where: string): ParsedMetadata {
  for (const parsed of notationsOf(text, where)) return parsed;
  throw inNoNotation(text, where);
}

/** Says that a text is in none of the notations, or too long for those that are found by what repeats. */
export function inNoNotation(text: string, where: string): CaravanError {
  if (text.length > LONGEST_PATTERN)
    return problem(
      where,
      t(
        "It is not JSON, XML, YAML, TOML, sections of key = value, or a table, and too long to search for patterns (limit: {longestPattern} characters).",
        { longestPattern: LONGEST_PATTERN },
      ),
      t("Give the part of it that describes this picture."),
    );
  return problem(
    where,
    t("It is not JSON, XML, YAML, TOML, sections of key = value, or a table, and no pattern in it repeats."),
    t("Give a file that lists the rectangles of the frames in one of these forms."),
  );
}

/** The text in the notation that a reading is of. Throws `bad-metadata` if it is not written so. */
export function parseAs(container: Container, text: string, where: string): ParsedMetadata {
  const plain = READERS[container](contentOf(text, where), where);
  const tree = plain === null ? null : withFlatRecords(plain);
  if (tree === null)
    throw problem(where, t("It is not written as {container}.", { container }), t("Give the original file, or read it again."));
  return { container, tree };
}

/** All notations that the text may be written in, the plainer first, each parsed on demand. Throws like `parseMetadata`. */
export function* notationsOf(text: string, where: string): Generator<ParsedMetadata> {
  const content = contentOf(text, where);
  if (content.startsWith("<")) {
    yield { container: "xml", tree: withFlatRecords(fromXml(content, where)) };
    return;
  }
  let broken: string | null = null;
  let containers: readonly Container[] = CONTAINERS.slice(2);
  if (/^([{[]|\/[/*])/.test(content)) {
    const json = fromJson(content, where);
    if (json.ok) {
      yield { container: "json", tree: withFlatRecords(json.tree) };
      return;
    }
    // What stops in the middle is not guessed at: half a file would be taken for a whole one.
    if (/^(\{|\[\s*(["{\d\]-]|\[\s*["{[\d-]))/.test(content)) {
      broken = json.reason;
      containers = ["yaml", "code"];
    }
  }
  // Rectangles are numbers, in whatever notation; a long text without any is not read in six ways first.
  if (content.length > SHORT && !/\d/.test(content)) return;
  let found = 0;
  for (const container of likelyFirst(containers, content)) {
    const tree = READERS[container](content, where);
    if (tree === null || typeof tree !== "object") continue;
    found++;
    yield { container, tree: withFlatRecords(tree) };
  }
  if (found === 0 && broken !== null) throw damaged(where, broken);
}

/** Sections are read from almost anything that goes by lines; what nests further is read as what it is. */
function likelyFirst(containers: readonly Container[], content: string): Container[] {
  const first: Container[] = [];
  if (/^\s*\[\[|^\s*\[[^\]\s]+\.[^\]\s]+\]\s*$/m.test(content)) first.push("toml");
  if (/^\s*- |^\S[^:\n]*:\s*\n\s+\S|^---/m.test(content)) first.push("yaml");
  return [...first, ...containers].filter((each, k, all) => all.indexOf(each) === k && containers.includes(each));
}

function damaged(where: string, reason: string) {
  return problem(where, t("It begins as JSON but is damaged: {reason}.", { reason }), t("Repair it or export it again."));
}

function contentOf(text: string, where: string): string {
  const content = text.replace(/^\uFEFF/, "").trim();
  if (content === "") throw problem(where, t("The file is empty."), t("Export it again."));
  if (content.length > MOST_TEXT) throw problem(where, t("It is longer than 32 MB."), t("Give a file that describes one sheet."));
  return content;
}
