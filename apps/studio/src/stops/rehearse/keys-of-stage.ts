/** Lists a stage's keys, for the list of keys and for display. */
import type { Going, StageKey } from "@caravan/core/model";
import { t } from "../../ui/words";
import type { Control } from "./session";

/** A key's place on the keyboard as a chord; null for keys that cannot be one. */
export function chordOfCode(code: string): string | null {
  const [, letter, digit] = /^Key([A-Z])$|^Digit([0-9])$/.exec(code) ?? [];
  if (letter) return letter.toLowerCase();
  if (digit) return digit;
  return /^(Arrow(Left|Right|Up|Down)|Space|Enter|Backspace)$/.test(code) ? code : (SIGNS[code] ?? null);
}

const SIGNS: Readonly<Record<string, string>> = {
  Comma: ",",
  Period: ".",
  Slash: "/",
  Semicolon: ";",
  Quote: "'",
  BracketLeft: "[",
  BracketRight: "]",
  Minus: "-",
  Equal: "=",
};

const PRINTED: Readonly<Record<string, string>> = { ArrowLeft: "←", ArrowRight: "→", ArrowUp: "↑", ArrowDown: "↓", Space: "Space" };

/** The label of a key. */
export function printedOn(code: string): string {
  return PRINTED[code] ?? SIGNS[code] ?? code.replace(/^Key|^Digit/, "");
}

export function controlOf(key: StageKey): Control {
  return "go" in key ? { go: key.go } : { input: key.input };
}

export function nameOfControl(what: Control): string {
  return "go" in what ? GOING_WORDS[what.go] : what.input;
}

const GOING_WORDS: Readonly<Record<Going, string>> = { left: t("left"), right: t("right"), up: t("up"), down: t("down") };
