/** Says where a text stops being JSON, in words for the person who edited or merged it. */
import { printParseErrorCode, visit } from "jsonc-parser";
import { t } from "../words";

/** What version control writes around the two sides of a conflict. */
const CONFLICT = /^(<{7}|={7}|>{7})(?= |\r?$)/m;

export interface NotJson {
  /** Lines from 1; null at the end of the text. */
  readonly line: number | null;
  /** A sentence. */
  readonly what: string;
  /** What to do, as a sentence. */
  readonly mend: string;
}

/** `text` is no JSON. */
export function whyNotJson(text: string): NotJson {
  const conflict = CONFLICT.exec(text);
  if (conflict) {
    const line = text.slice(0, conflict.index).split("\n").length;
    return {
      line,
      what: t("It is half merged: line {line} is the mark of a conflict, {mark}.", { line, mark: conflict[0] }),
      mend: t("Merge the two versions with “caravan merge”, or decide in the file what stays."),
    };
  }
  let found: NotJson | null = null;
  visit(
    text,
    {
      onError: (code, offset, _length, line, character) => {
        if (found || text.slice(offset).trim() === "") return;
        const place = { line: line + 1, column: character + 1, reason: printParseErrorCode(code) };
        found = {
          line: line + 1,
          what: t("It is not JSON: {reason} in line {line}, column {column}.", place),
          mend: t("Repair it there, or use an undamaged copy."),
        };
      },
    },
    { disallowComments: true, allowTrailingComma: false },
  );
  return found ?? { line: null, what: t("It is not JSON: it ends too early."), mend: t("Use an undamaged copy.") };
}
