/** Finds the order of names in a JSON object, since the runtime's own parser puts names that look like numbers first. */
import { findNodeAtLocation, parseTree } from "jsonc-parser";

/** Whether the runtime would move it to the front, as it does with "7" and not with "07". */
export function looksLikeIndex(name: string): boolean {
  return /^(0|[1-9]\d*)$/.test(name);
}

/** The names in the object at each of these positions, in text order; none if there is no object. `text` is valid JSON. */
export function namesInOrder(text: string, places: readonly (readonly (string | number)[])[]): string[][] {
  const tree = parseTree(text);
  return places.map((place) => {
    const node = tree && findNodeAtLocation(tree, [...place]);
    return node?.type === "object" ? (node.children ?? []).map((pair) => String(pair.children?.[0]?.value)) : [];
  });
}
