import { type Node, parseTree } from "jsonc-parser";
import { leafOfQuoted } from "../notation";
import { NO_CHILDREN, numbersIn, type Place, type Spelled } from "./place";

/** Locates values in JSON; returns null if the text is not JSON. */
export function placesInJson(text: string): Place | null {
  const root = parseTree(text, [], { allowTrailingComma: false });
  return root ? placeOf(root, text, null, root) : null;
}

/** `entry` is the property that the node is the value of, or the node itself. */
function placeOf(node: Node, text: string, key: Spelled | null, entry: Node): Place {
  const span = { from: entry.offset, to: entry.offset + entry.length, key };
  if (node.type === "array") {
    const children = new Map((node.children ?? []).map((each, k): [string, Place] => [String(k), placeOf(each, text, null, each)]));
    return { ...span, value: null, list: true, children };
  }
  if (node.type === "object") {
    const children = new Map<string, Place>();
    for (const property of node.children ?? []) {
      const [name, value] = property.children ?? [];
      if (!name || !value) continue;
      const spelled: Spelled = { from: name.offset, to: name.offset + name.length, means: String(name.value), as: "json" };
      children.set(String(name.value), placeOf(value, text, spelled, property));
    }
    return { ...span, value: null, list: false, children };
  }
  const at = { from: node.offset, to: node.offset + node.length };
  const means = typeof node.value === "string" ? leafOfQuoted(node.value) : ((node.value ?? null) as number | boolean | null);
  if (Array.isArray(means)) return { ...span, value: null, list: true, children: numbersIn(text.slice(at.from, at.to), at.from) };
  return { ...span, value: { ...at, means: means as Spelled["means"], as: "json" }, list: false, children: NO_CHILDREN };
}
