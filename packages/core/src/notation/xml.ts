/** Parses XML: attributes, child elements, nested groups, and lists of alternating keys and values. */
import { XMLParser } from "fast-xml-parser";
import { t } from "../words";
import { withDecimalCommas, withPoint } from "./decimal-commas";
import { pairsAsRecord } from "./flat";
import { leafOf } from "./leaf";
import { DEEPEST, problem, type Tree, tooDeep } from "./tree";

type XmlNode = Record<string, unknown>;

/** Throws `bad-metadata` if it is damaged, defines entities or is nested too deep. `where` names the file. */
export function fromXml(text: string, where: string): Tree {
  // A type declaration may define entities, which unpack without bound or name other files; a bare one does no harm.
  if (/<!ENTITY|<!DOCTYPE[^>]*\[/i.test(text))
    throw problem(where, t("The XML defines entities, which are not read."), t("Export it without a document type definition."));
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: "",
    processEntities: true,
    // Numeric ones too, such as &#228;.
    htmlEntities: true,
    parseTagValue: false,
    parseAttributeValue: false,
    ignoreDeclaration: true,
    ignorePiTags: true,
    commentPropName: "#comment",
  });
  let nodes: XmlNode[];
  try {
    nodes = parser.parse(text, true) as XmlNode[];
  } catch (cause) {
    throw problem(
      where,
      t("It begins as XML but is damaged: {reason}.", {
        reason: cause instanceof Error ? cause.message.replace(/\s+/g, " ").slice(0, 160) : "unreadable",
      }),
      t("Repair it or export it again."),
      cause,
    );
  }
  pointDecimals(nodes);
  return childrenOf(nodes, 0, where);
}

/** Gives attributes that have a comma before their decimals a point, in place. */
function pointDecimals(nodes: readonly XmlNode[]): void {
  const byName = new Map<string, Record<string, string>[]>();
  const collect = (each: readonly XmlNode[], depth: number): void => {
    if (depth > DEEPEST) return;
    for (const node of each) {
      const attributes = node[":@"] as Record<string, string> | undefined;
      for (const name of Object.keys(attributes ?? {})) {
        const all = byName.get(name) ?? [];
        byName.set(name, all);
        all.push(attributes as Record<string, string>);
      }
      const inner = node[nameOf(node)];
      if (Array.isArray(inner)) collect(inner as XmlNode[], depth + 1);
    }
  };
  collect(nodes, 0);
  const called = [...byName].map(([name, all]) => ({ name, all, texts: all.map((attributes) => String(attributes[name])) }));
  for (const { name, all } of withDecimalCommas(called))
    for (const attributes of all) attributes[name] = withPoint(String(attributes[name]));
}

function nameOf(node: XmlNode): string {
  return Object.keys(node).find((key) => key !== ":@") ?? "";
}

function childrenOf(nodes: readonly XmlNode[], depth: number, where: string): Tree {
  if (depth > DEEPEST) throw tooDeep(where);
  const elements = nodes.filter((node) => !nameOf(node).startsWith("#"));
  const keyed = keyedPairs(elements, depth, where);
  if (keyed) return keyed;
  const lists = new Map<string, Tree[]>();
  for (const node of elements) {
    const name = nameOf(node);
    const list = lists.get(name) ?? [];
    lists.set(name, list);
    list.push(elementOf(node, depth, where));
  }
  // `<p n="x" v="2"/><p n="y" v="4"/>`: the fields of their parent record.
  const [only] = [...lists.values()];
  const fields = depth > 0 && lists.size === 1 && only ? pairsAsRecord(only) : null;
  if (fields) return fields;
  return Object.fromEntries([...lists].map(([name, list]) => [name, list.length === 1 ? (list[0] as Tree) : list]));
}

/** `<key>a</key><value/><key>b</key><value/>`: alternating names and values. */
function keyedPairs(elements: readonly XmlNode[], depth: number, where: string): Tree | null {
  const [first] = elements;
  if (!first || elements.length % 2 !== 0) return null;
  const keyName = nameOf(first);
  if (!elements.every((node, k) => (nameOf(node) === keyName) === (k % 2 === 0))) return null;
  // Two elements are a pair only by their name: they may as well be a width and a height.
  if (elements.length === 2 && keyName.toLowerCase() !== "key") return null;
  const record = new Map<string, Tree>();
  for (let k = 0; k < elements.length; k += 2) {
    const key = elementOf(elements[k] as XmlNode, depth, where);
    if (typeof key === "object") return null;
    const value = elements[k + 1] as XmlNode;
    record.set(String(key), saidBy(value, keyName, depth, where));
  }
  return Object.fromEntries(record);
}

/** The members of a value that is a list; null if it is a record with keys, or only text. */
function membersOf(node: XmlNode, keyName: string): XmlNode[] | null {
  const elements = (node[nameOf(node)] as XmlNode[]).filter((each) => !nameOf(each).startsWith("#"));
  return node[":@"] === undefined && elements.length > 0 && elements.every((each) => nameOf(each) !== keyName) ? elements : null;
}

/** What a value in a list of keys and values says: a list of members, a record, or a text; `<true/>` says it by its name alone. */
function saidBy(node: XmlNode, keyName: string, depth: number, where: string): Tree {
  if (depth > DEEPEST) throw tooDeep(where);
  const members = membersOf(node, keyName);
  if (members) return members.map((member) => saidBy(member, keyName, depth + 1, where));
  const content = elementOf(node, depth, where);
  return content === "" && Object.keys(node).length === 1 ? leafOf(nameOf(node)) : content;
}

function elementOf(node: XmlNode, depth: number, where: string): Tree {
  const name = nameOf(node);
  const attributes = Object.entries((node[":@"] as Record<string, string> | undefined) ?? {});
  const inner = node[name] as XmlNode[];
  const text = inner.map((each) => (typeof each["#text"] === "string" ? (each["#text"] as string) : "")).join("");
  const children = childrenOf(inner, depth + 1, where) as Record<string, Tree>;
  const empty = Object.keys(children).length === 0;
  if (attributes.length === 0) return empty ? leafOf(text) : children;
  const record = { ...Object.fromEntries(attributes.map(([key, value]) => [key, leafOf(String(value))])), ...children };
  return text.trim() === "" ? record : { ...record, text: leafOf(text) };
}
