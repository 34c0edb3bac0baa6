/**
 * Returns whether a whole name matches a pattern, in which `*` stands for any text (or none) and `?` for one character. All other
 * characters are literal.
 *
 * Greedy: a `*` first matches nothing, and one character more each time its continuation fails. Only the last `*` ever needs to extend, so
 * there is no search tree. Cost: O(pattern × name) at worst, usually O(pattern + name). Characters are code points.
 */
export function matchesOne(pattern: string, name: string): boolean {
  const wanted = [...pattern];
  const given = [...name];
  let at = 0;
  let star = -1;
  /** The end of the text that the last `*` stands for. */
  let until = 0;
  let k = 0;
  while (k < given.length) {
    if (at < wanted.length && wanted[at] === "*") {
      star = at++;
      until = k;
    } else if (at < wanted.length && (wanted[at] === "?" || wanted[at] === given[k])) {
      at++;
      k++;
    } else if (star >= 0) {
      at = star + 1;
      k = ++until;
    } else return false;
  }
  while (wanted[at] === "*") at++;
  return at === wanted.length;
}

/** Whether a name matches any of several patterns with commas between; blanks around them do not count, and empty ones match nothing. */
export function matches(patterns: string, name: string): boolean {
  return patterns.split(",").some((each) => each.trim() !== "" && matchesOne(each.trim(), name));
}
