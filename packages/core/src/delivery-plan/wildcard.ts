/**
 * Returns whether a name matches a pattern in which `*` stands for any text, also none, and `?` for one character; the whole name must. Every
 * other character stands for itself.
 *
 * Greedy: a `*` first takes nothing, and one character more each time what follows it does not fit. Only the last `*` need ever give way,
 * so there is no search tree. Cost: O(pattern × name) at worst, O(pattern + name) mostly. Characters are code points.
 */
function matchesOne(pattern: string, name: string): boolean {
  const wanted = [...pattern];
  const given = [...name];
  let at = 0;
  let star = -1;
  /** Where the text that the last `*` stands for ends. */
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
