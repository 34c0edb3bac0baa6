/** Parses JSON, also with comments, trailing commas, and repeated names (each of which is kept). */
import { type ParseErrorCode, printParseErrorCode, visit } from "jsonc-parser";
import { leafOfQuoted } from "./leaf";
import { DEEPEST, Members, type Tree, tooDeep } from "./tree";

/** Longer texts are read by the runtime's own parser, which is strict and keeps the last of repeated names. */
const LONGEST_TOLERANT = 8 * 1_048_576; // characters

export type JsonOutcome = { readonly ok: true; readonly tree: Tree } | { readonly ok: false; readonly reason: string };

/** Converts numbers and booleans written as text. Throws if nested too deep; `where` names the file. */
export function fromJson(text: string, where: string): JsonOutcome {
  if (text.length > LONGEST_TOLERANT) return fromStrictJson(text, where);
  type Open = { readonly members: Members | null; readonly list: Tree[]; key: string };
  const root: Open = { members: null, list: [], key: "" };
  const open: Open[] = [root];
  let broken: string | null = null;
  const put = (value: Tree) => {
    const here = open.at(-1) as Open;
    if (here.members) here.members.add(here.key, value);
    else here.list.push(value);
  };
  const begin = (members: Members | null) => {
    if (open.length > DEEPEST) throw tooDeep(where);
    open.push({ members, list: [], key: "" });
  };
  const end = () => {
    const { members, list } = open.pop() as Open;
    put(members ? members.record() : list);
  };
  try {
    visit(
      text,
      {
        onObjectBegin: () => begin(new Members()),
        onObjectProperty: (name) => {
          (open.at(-1) as Open).key = name;
        },
        onObjectEnd: end,
        onArrayBegin: () => begin(null),
        onArrayEnd: end,
        onLiteralValue: (value: unknown) => put(plain(value)),
        onError: (code: ParseErrorCode, _offset, _length, line, character) => {
          // The visitor would continue to the end, and a damaged text may be long.
          throw new Damage(`${printParseErrorCode(code)} at line ${line + 1}, column ${character + 1}`);
        },
      },
      { disallowComments: false, allowTrailingComma: true },
    );
  } catch (error) {
    if (!(error instanceof Damage)) throw error;
    broken = error.message;
  }
  if (broken !== null || open.length !== 1 || root.list.length !== 1) return { ok: false, reason: broken ?? "it ends too early" };
  return { ok: true, tree: root.list[0] as Tree };
}

class Damage extends Error {}

function fromStrictJson(text: string, where: string): JsonOutcome {
  try {
    return { ok: true, tree: nested(JSON.parse(text), 0, where) };
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return { ok: false, reason: error.message };
  }
}

function nested(value: unknown, depth: number, where: string): Tree {
  if (depth > DEEPEST) throw tooDeep(where);
  if (Array.isArray(value)) return value.map((each) => nested(each, depth + 1, where));
  if (typeof value === "object" && value !== null)
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, nested(each, depth + 1, where)]));
  return plain(value);
}

function plain(value: unknown): Tree {
  return typeof value === "string" ? leafOfQuoted(value) : typeof value === "number" || typeof value === "boolean" ? value : null;
}
