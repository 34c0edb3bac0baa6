/** Whether more than half of the parts of both are the same, each counted as often as it occurs; nothing is like nothing. */
export function areMostlyAlike(was: readonly string[], is: readonly string[]): boolean {
  const left = new Map<string, number>();
  for (const part of was) left.set(part, (left.get(part) ?? 0) + 1);
  let shared = 0;
  for (const part of is) {
    const count = left.get(part) ?? 0;
    if (count === 0) continue;
    shared++;
    left.set(part, count - 1);
  }
  return shared * 2 > Math.max(was.length, is.length);
}
