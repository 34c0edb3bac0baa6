/** Finds things by what a person types. */

/** Those whose words hold everything that was typed; those whose name begins with it come first. All, if nothing was typed. */
export function matching<Thing>(
  all: readonly Thing[],
  typed: string,
  nameOf: (thing: Thing) => string,
  wordsOf: (thing: Thing) => string = nameOf,
): readonly Thing[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return all;
  const holding = all.filter((thing) => {
    const own = wordsOf(thing).toLowerCase();
    return words.every((word) => own.includes(word));
  });
  const begins = (thing: Thing) =>
    nameOf(thing)
      .toLowerCase()
      .startsWith(words[0] as string);
  return [...holding.filter(begins), ...holding.filter((each) => !begins(each))];
}
