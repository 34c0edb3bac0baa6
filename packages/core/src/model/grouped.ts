/** Things by what they have in common, in their order. */
export function groupedBy<Each, Key>(all: readonly Each[], keyOf: (each: Each) => Key): Map<Key, Each[]> {
  const groups = new Map<Key, Each[]>();
  for (const each of all) {
    const key = keyOf(each);
    const group = groups.get(key);
    if (group) group.push(each);
    else groups.set(key, [each]);
  }
  return groups;
}
