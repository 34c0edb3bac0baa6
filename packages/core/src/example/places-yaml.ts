/** Locates values in YAML of one document. See `fromYaml` for how it is read. */
import { isAlias, isMap, isScalar, isSeq, type Node, parseAllDocuments, Scalar } from "yaml";
import { leafOfQuoted, plainLeaf, YAML_AS_TEXT } from "../notation";
import { NO_CHILDREN, numbersIn, type Place, type Spelled } from "./place";

/** Places in YAML; null if there is not exactly one document. */
export function placesInYaml(text: string): Place | null {
  const documents = parseAllDocuments(text, YAML_AS_TEXT);
  const [only] = documents;
  if (!Array.isArray(documents) || documents.length !== 1 || !only?.contents) return null;
  const root = placeOf(only.contents as Node, text, null, 0);
  return { ...root, from: 0, to: text.length };
}

/** `key` is the spelling of the entry's name; `from` is where its value would be if it has none. */
function placeOf(node: unknown, text: string, key: Spelled | null, from: number): Place {
  const [begin, end] = (node as Node | null)?.range ?? [from, from];
  const start = key?.from ?? begin;
  if (isMap(node) || isSeq(node)) {
    const children = new Map<string, Place>();
    if (isSeq(node)) for (const [k, item] of node.items.entries()) children.set(String(k), placeOf(item, text, null, begin));
    else
      for (const { key: name, value } of node.items) {
        const [at, to] = (name as Node).range ?? [begin, begin];
        const means = isScalar(name) ? String(name.value) : String(name);
        children.set(means, placeOf(value, text, { from: at, to, means, as: "yaml" }, to));
      }
    // A block ends with its content; blank lines and comments after it do not belong to it.
    const last = [...children.values()].at(-1);
    const closed = (node as { flow?: boolean }).flow === true || !last;
    return { from: start, to: closed ? end : last.to, key, value: null, list: isSeq(node), children };
  }
  const plain = isScalar(node) && (node as Scalar).type === Scalar.PLAIN;
  const says = isScalar(node) && typeof node.value === "string" ? node.value : null;
  const means = isAlias(node) ? `*${node.source}` : says === null ? null : plain ? plainLeaf(says) : leafOfQuoted(says);
  if (Array.isArray(means))
    return { from: start, to: end, key, value: null, list: true, children: numbersIn(text.slice(begin, end), begin) };
  const value: Spelled = { from: begin, to: end, means: means as Spelled["means"], as: "yaml" };
  return { from: start, to: end, key, value, list: false, children: NO_CHILDREN };
}
