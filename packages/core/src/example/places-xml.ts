/**
 * Locates values in XML that a parser has accepted. The scanner relies on the text being well-formed; see `parseMetadata` for its
 * meaning.
 */
import { leafOf } from "../notation";
import { NO_CHILDREN, numbersIn, type Place, type Spelled } from "./place";

interface Element {
  readonly name: string;
  readonly from: number;
  to: number;
  /** Between its tags. */
  readonly inside: number;
  insideTo: number;
  readonly attributes: readonly { readonly name: string; readonly from: number; readonly to: number }[];
  readonly children: Element[];
}

const TOKEN = /<!--[\s\S]*?-->|<!\[CDATA\[[\s\S]*?\]\]>|<\?[\s\S]*?\?>|<![^>]*>|<\/[^>]*>|<(?:[^"'>]|"[^"]*"|'[^']*')*>/g;

export function placesInXml(text: string): Place {
  const root: Element = { name: "", from: 0, to: text.length, inside: 0, insideTo: text.length, attributes: [], children: [] };
  const open: Element[] = [root];
  for (const { 0: token, index } of text.matchAll(TOKEN)) {
    if (/^<[!?]/.test(token)) continue;
    const parent = open.at(-1) as Element;
    const end = index + token.length;
    if (token.startsWith("</")) {
      if (open.length === 1) continue;
      open.pop();
      parent.insideTo = index;
      parent.to = end;
      continue;
    }
    const name = /^<\s*([^\s/>]+)/.exec(token)?.[1] ?? "";
    const element: Element = {
      name,
      from: index,
      to: end,
      inside: end,
      insideTo: end,
      attributes: attributesOf(token, index),
      children: [],
    };
    parent.children.push(element);
    if (!token.endsWith("/>")) open.push(element);
  }
  return { ...NOWHERE, from: 0, to: text.length, children: childrenOf(root.children, text) };
}

const NOWHERE = { key: null, value: null, list: false, children: NO_CHILDREN } as const;

function attributesOf(tag: string, from: number): Element["attributes"] {
  return [...tag.matchAll(/([^\s=<>/"']+)\s*=\s*("[^"]*"|'[^']*')/g)].map((match) => {
    const quoted = match[2] as string;
    const at = from + match.index + match[0].length - quoted.length + 1;
    return { name: match[1] as string, from: at, to: at + quoted.length - 2 };
  });
}

function childrenOf(elements: readonly Element[], text: string): ReadonlyMap<string, Place> {
  const keyed = keyedPairs(elements, text);
  if (keyed) return keyed;
  const lists = new Map<string, Place[]>();
  for (const element of elements) {
    const list = lists.get(element.name) ?? [];
    lists.set(element.name, list);
    list.push(placeOf(element, text));
  }
  return new Map([...lists].map(([name, list]): [string, Place] => [name, list.length === 1 ? (list[0] as Place) : together(list)]));
}

/** Elements with the same name are one list, wherever they are among the others. */
function together(list: readonly Place[]): Place {
  return {
    ...NOWHERE,
    from: (list[0] as Place).from,
    to: (list.at(-1) as Place).to,
    list: true,
    children: new Map(list.map((each, k): [string, Place] => [String(k), each])),
  };
}

/** `<key>a</key><value/>` in turn. */
function keyedPairs(elements: readonly Element[], text: string): ReadonlyMap<string, Place> | null {
  const [first] = elements;
  if (!first || elements.length % 2 !== 0) return null;
  if (!elements.every(({ name }, k) => (name === first.name) === (k % 2 === 0))) return null;
  if (elements.length === 2 && first.name.toLowerCase() !== "key") return null;
  const pairs = new Map<string, Place>();
  for (let k = 0; k < elements.length; k += 2) {
    const key = placeOf(elements[k] as Element, text).value;
    if (!key) return null;
    const value = elements[k + 1] as Element;
    pairs.set(String(key.means), { ...saidBy(value, first.name, text), from: (elements[k] as Element).from, key });
  }
  return pairs;
}

/** A value in a list of keys and values: a list of members, a record, or a text; `<true/>` says it by its name alone. */
function saidBy(element: Element, keyName: string, text: string): Place {
  const { from, to, attributes, children, name } = element;
  if (attributes.length === 0 && children.length > 0 && children.every((child) => child.name !== keyName))
    return { ...NOWHERE, from, to, list: true, children: new Map(children.map((child, k) => [String(k), saidBy(child, keyName, text)])) };
  const place = placeOf(element, text);
  if (place.value?.means !== "" || attributes.length > 0) return place;
  return { ...place, value: { from, to, means: leafOf(name) as Spelled["means"], as: "flag" } };
}

function placeOf(element: Element, text: string): Place {
  const { from, to, attributes, children } = element;
  const inner = textOf(element, text);
  const below = childrenOf(children, text);
  if (attributes.length === 0) return below.size > 0 ? { ...NOWHERE, from, to, children: below } : { ...NOWHERE, from, to, ...inner };
  const own = attributes.map((each): [string, Place] => [
    each.name,
    { ...NOWHERE, from: each.from, to: each.to, ...spelled(text, each.from, each.to, "attribute") },
  ]);
  const all = new Map([...own, ...below]);
  if (inner.value?.means !== "") all.set("text", { ...NOWHERE, from: element.inside, to: element.insideTo, ...inner });
  return { ...NOWHERE, from, to, children: all };
}

/** The text between its tags, trimmed. Ignored beside child elements: such files are not accepted. */
function textOf({ inside, insideTo, children }: Element, text: string): Pick<Place, "value" | "list" | "children"> {
  if (children.length > 0) return spelled(text, inside, inside, "element");
  const raw = text.slice(inside, insideTo);
  const start = inside + (raw.length - raw.trimStart().length);
  return spelled(text, Math.min(start, insideTo), Math.max(Math.min(start, insideTo), inside + raw.trimEnd().length), "element");
}

function spelled(text: string, from: number, to: number, as: "attribute" | "element"): Pick<Place, "value" | "list" | "children"> {
  const means = leafOf(decoded(text.slice(from, to)));
  if (Array.isArray(means)) return { value: null, list: true, children: numbersIn(text.slice(from, to), from) };
  return { value: { from, to, means: means as Spelled["means"], as }, list: false, children: NO_CHILDREN };
}

const ENTITIES: Record<string, string> = { amp: "&", lt: "<", gt: ">", quot: '"', apos: "'" };

function decoded(text: string): string {
  return text.replace(/<!--[\s\S]*?-->/g, "").replace(/&(\w+);/g, (whole, name: string) => ENTITIES[name] ?? whole);
}
