/** Characters of a name that are compared, which bounds the time for very long ones. */
const COMPARED = 64;

/**
 * Finds the names most similar to a mistyped one, by Levenshtein's edit distance (1966), ignoring case. Shipped with the player, so it has
 * no dependencies.
 *
 * Holds: equal input, equal order; ties keep the order given. Cost: O(names × length²); of long names, the beginning is compared.
 */
export function similarNames(name: string, names: readonly string[], most: number): string[] {
  const wanted = name.slice(0, COMPARED).toLowerCase();
  return names
    .map((each) => ({ each, apart: distance(each.slice(0, COMPARED).toLowerCase(), wanted) }))
    .sort((a, b) => a.apart - b.apart)
    .slice(0, most)
    .map(({ each }) => each);
}

function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, k) => k);
  for (let i = 0; i < a.length; i++) {
    const next = [i + 1];
    for (let j = 0; j < b.length; j++)
      next.push(Math.min((next[j] as number) + 1, (row[j + 1] as number) + 1, (row[j] as number) + (a[i] === b[j] ? 0 : 1)));
    row = next;
  }
  return row[b.length] as number;
}
