/** Parses YAML of any number of documents. Repeated names are kept, tags and anchors are harmless, aliases are bounded. */
import { isAlias, isMap, isScalar, isSeq, type Node, parseAllDocuments, Scalar } from "yaml";
import { leafOf, leafOfQuoted } from "./leaf";
import { DEEPEST, Members, type Tree, tooDeep } from "./tree";

/** The parser takes about two seconds for this much. */
const LONGEST = 786_432; // characters: about 10,000 records

/** As text, so that 0001 and no stay as written until the writer is known; quoted values stay text for good. */
export const YAML_AS_TEXT = { schema: "failsafe", uniqueKeys: false, logLevel: "silent", prettyErrors: false } as const;

/** Null if it is no YAML, or only a text. Throws if it is nested too deep; `where` names the file. */
export function fromYaml(text: string, where: string): Tree | null {
  // Without a name and a value on some line it is none, and the parser would make an error of every sign of it.
  if (text.length > LONGEST || !/^[ \t]*(?:- )*[^\s:{[][^:\n]{0,200}:(?:[ \t]|$)/m.test(text)) return null;
  let documents: ReturnType<typeof parseAllDocuments>;
  try {
    documents = parseAllDocuments(text, YAML_AS_TEXT);
  } catch {
    return null;
  }
  if (!Array.isArray(documents)) return null;
  const trees: Tree[] = [];
  for (const document of documents) {
    if (document.errors.length > 0) return null;
    const tree = treeOf(document.contents as Node | null, 0, where);
    if (typeof tree === "object" && tree !== null) trees.push(tree);
    else if (tree !== null && tree !== "") return null;
  }
  return trees.length === 0 ? null : trees.length === 1 ? (trees[0] as Tree) : trees;
}

function treeOf(node: unknown, depth: number, where: string): Tree {
  if (depth > DEEPEST) throw tooDeep(where);
  if (isScalar(node)) {
    const { value, type } = node as Scalar;
    if (typeof value !== "string") return null;
    return type === Scalar.PLAIN ? plainLeaf(value) : leafOfQuoted(value);
  }
  if (isSeq(node)) return node.items.map((item) => treeOf(item, depth + 1, where));
  if (isMap(node)) {
    const members = new Members();
    for (const { key, value } of node.items) members.add(isScalar(key) ? String(key.value) : String(key), treeOf(value, depth + 1, where));
    return members.record();
  }
  // What an alias repeats is not unpacked: it may repeat without bound.
  if (isAlias(node)) return `*${node.source}`;
  return null;
}

/** What a value without quotes means. */
export function plainLeaf(text: string): Tree {
  return /^(~|null)?$/i.test(text) ? null : leafOf(text);
}
