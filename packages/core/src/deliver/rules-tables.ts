/** Writes the rules of behaviours as tables: Markdown for reading, CSV (RFC 4180, lines ending in LF) for spreadsheets. */
import Papa from "papaparse";
import { utf8 } from "../codec";
import type { Behaviour } from "../model";
import { inputInWords, keepInWords, restInWords, whenInWords } from "../rehearse";

const COLUMNS = ["rule", "when", "plays", "how long", "besides"];

function rowsOf({ rules }: Behaviour): string[][] {
  return rules.map((rule) => [rule.name, whenInWords(rule), rule.play, keepInWords(rule), restInWords(rule)]);
}

/** Every behaviour with its rules, top first, and its inputs. */
export function rulesForPeople(behaviours: readonly Behaviour[]): Uint8Array {
  const parts = behaviours.flatMap((behaviour) => [
    `## ${cell(behaviour.name)}`,
    "",
    ...table(COLUMNS, rowsOf(behaviour)),
    "",
    ...table(
      ["input", "what it is"],
      behaviour.inputs.map((input) => [input.name, inputInWords(input)]),
    ),
    "",
  ]);
  const none = "This delivery contains no behaviours.";
  return utf8(
    ["# Which clip shows when", "", "The first rule that holds shows.", "", ...(parts.length > 0 ? parts : [none, ""])].join("\n"),
  );
}

export function rulesTable(behaviours: readonly Behaviour[]): Uint8Array {
  const rows = behaviours.flatMap((behaviour) => rowsOf(behaviour).map((row, k) => [behaviour.name, String(k + 1), ...row]));
  return utf8(`${Papa.unparse([["behaviour", "number", ...COLUMNS.map((each) => each.replace(" ", "_"))], ...rows], { newline: "\n" })}\n`);
}

function table(heads: readonly string[], rows: readonly (readonly string[])[]): string[] {
  const line = (cells: readonly string[]) => `| ${cells.map(cell).join(" | ")} |`;
  return [line(heads), `|${heads.map(() => "---").join("|")}|`, ...rows.map(line)];
}

/** Text that means nothing to Markdown. */
function cell(text: string): string {
  return text.replace(/[\\|`*_{}[\]<>#]/g, "\\$&");
}
