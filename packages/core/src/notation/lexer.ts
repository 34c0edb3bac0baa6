/**
 * Splits a text of unknown notation into words, numbers, strings and punctuation, for finding structure in it.
 *
 * Comments are kept as notes, because people write names there. Cost: O(text); each expression is tried at one place only.
 */
import { leafOfQuoted } from "./leaf";
import type { Tree } from "./tree";

export type Token =
  | { readonly kind: "word" | "string"; readonly value: string; readonly at: number }
  | { readonly kind: "number"; readonly value: number; readonly at: number }
  | { readonly kind: "open" | "close" | "mark" | "note"; readonly value: string; readonly at: number }
  | { readonly kind: "newline"; readonly value: string; readonly at: number };

export type Atom = Extract<Token, { kind: "word" | "string" | "number" }>;

const RULES: readonly (readonly [Token["kind"] | "blank", RegExp])[] = [
  ["newline", /\r?\n|\r/y],
  ["blank", /[^\S\r\n]+/y],
  ["note", /\/\*[\s\S]*?\*\/|\/\/[^\r\n]*|--(?=\s|\[)[^\r\n]*|#(?=\s)[^\r\n]*|;;[^\r\n]*/y],
  ["string", /"(?:[^"\\\r\n]|\\.)*"|'(?:[^'\\\r\n]|\\.)*'|`(?:[^`\\]|\\.)*`/y],
  ["number", /[+-]?(?:\d+\.?\d*(?:e[+-]?\d{1,3})?|\.\d+)(?:px|[fFuUlL])?(?![\p{L}\p{N}_%]|-[\p{L}_])/uy],
  ["word", /[.#@$&%]*[\p{L}\p{N}_](?:(?:::|->(?=[\p{L}_])|[\p{L}\p{N}_$.\-/\\@#%&])*[\p{L}\p{N}_%])?/uy],
  ["open", /[([{]/y],
  ["close", /[)\]}]/y],
  ["mark", /=>|->|:=|[=:,;]/y],
];

/** Signs that none of the rules knows are passed over. */
export function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  while (at < text.length) {
    const found = nextAt(text, at);
    if (!found) {
      at++;
      continue;
    }
    if (found.kind !== "blank") tokens.push(tokenOf(found.kind, found.raw, at));
    at += found.raw.length;
  }
  return tokens;
}

function nextAt(text: string, at: number): { kind: Token["kind"] | "blank"; raw: string } | null {
  for (const [kind, rule] of RULES) {
    rule.lastIndex = at;
    const raw = rule.exec(text)?.[0];
    if (raw) return { kind, raw };
  }
  return null;
}

function tokenOf(kind: Token["kind"], raw: string, at: number): Token {
  if (kind === "string") return { kind, value: raw.slice(1, -1).replace(/\\(.)/g, "$1"), at };
  if (kind === "number") {
    // Padded ones are names, as everywhere.
    if (/^[+-]?0\d/.test(raw)) return { kind: "word", value: raw, at };
    return { kind, value: Number(raw.replace(/(px|[a-z])$/i, "")), at };
  }
  if (kind === "note") return { kind, value: raw.replace(/^(\/\*+|\/\/+|--+|#+|;;+)|\*+\/$/g, "").trim(), at };
  return { kind, value: raw, at };
}

export function leafOfAtom({ kind, value }: Atom): Tree {
  if (kind === "string") return leafOfQuoted(value);
  if (kind === "word" && /^(true|yes|True)$/.test(value)) return true;
  if (kind === "word" && /^(false|no|False)$/.test(value)) return false;
  return kind === "word" && /^(nil|null|None)$/.test(value) ? null : value;
}
