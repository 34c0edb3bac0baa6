import { parse } from "smol-toml";
import { leafOfQuoted } from "./leaf";
import { DEEPEST, type Tree, tooDeep } from "./tree";

const LONGEST = 1_048_576; // characters

/** Null if it is no TOML. Throws if it is nested too deep; `where` names the file. */
export function fromToml(text: string, where: string): Tree | null {
  if (text.length > LONGEST) return null;
  try {
    return treeOf(parse(text), 0, where);
  } catch (error) {
    if (error instanceof Error && error.name === "CaravanError") throw error;
    return null;
  }
}

function treeOf(value: unknown, depth: number, where: string): Tree {
  if (depth > DEEPEST) throw tooDeep(where);
  if (Array.isArray(value)) return value.map((each) => treeOf(each, depth + 1, where));
  if (typeof value === "string") return leafOfQuoted(value);
  if (typeof value === "number" || typeof value === "boolean") return value;
  if (value instanceof Date || typeof value !== "object" || value === null) return String(value);
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, treeOf(each, depth + 1, where)]));
}
