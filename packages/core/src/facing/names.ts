/**
 * Reads facings from names: `walk_s`, `walk-SE`, `walkLeft`, `up_idle`, `look 3`. A facing is a whole word of the name, so that `s` never
 * matches `se`. Numbers mean facings only where a group of names has exactly 2, 4 or 8 of them in a row.
 */
import { FACINGS, FACINGS_OF, type Facing, naturalOrder, type Ways } from "../model";

const WORDS = new Map<string, Facing>([
  ...FACINGS.map((each): [string, Facing] => [each, each]),
  ["east", "e"],
  ["southeast", "se"],
  ["south", "s"],
  ["southwest", "sw"],
  ["west", "w"],
  ["northwest", "nw"],
  ["north", "n"],
  ["northeast", "ne"],
  ["right", "e"],
  ["downright", "se"],
  ["rightdown", "se"],
  ["down", "s"],
  ["front", "s"],
  ["downleft", "sw"],
  ["leftdown", "sw"],
  ["left", "w"],
  ["upleft", "nw"],
  ["leftup", "nw"],
  ["up", "n"],
  ["back", "n"],
  ["upright", "ne"],
  ["rightup", "ne"],
]);

/** The facing that a word means, or null: compass letters or words, or up, down, left, right, front, back. */
export function facingOfWord(word: string): Facing | null {
  return WORDS.get(word.toLowerCase().replace(/[-_. ]/g, "")) ?? null;
}

/** A name parted into the movement and the facing; `facing` is null for a name without one. */
export interface FacingName {
  readonly stem: string;
  readonly facing: Facing | null;
  /** The running number at its end, if that is all it has. */
  readonly number: number | null;
}

/** Reads a facing from the last word or two of a name, otherwise from its first; otherwise from its last number. */
export function facingOfName(name: string): FacingName {
  const place = placeOfFacing(name);
  if (place) return { stem: trimmed(place.rest), facing: place.facing, number: null };
  const numbered = /^(.*\D)(\d+)$/.exec(name);
  if (numbered) return { stem: trimmed(numbered[1] as string), facing: null, number: Number(numbered[2]) };
  return { stem: name, facing: null, number: null };
}

/** The position of the facing in a name: from `from` up to `to`; `rest` is the name without it. */
interface FacingPlace {
  readonly facing: Facing;
  readonly from: number;
  readonly to: number;
  readonly rest: string;
}

function placeOfFacing(name: string): FacingPlace | null {
  const words = wordsOf(name);
  for (const count of [2, 1])
    for (const atEnd of [true, false]) {
      if (words.length <= count) continue;
      const part = atEnd ? words.slice(-count) : words.slice(0, count);
      const facing = facingOfWord(part.map(({ text }) => text).join(""));
      const [first, last] = [part[0], part.at(-1)];
      if (facing === null || !first || !last) continue;
      const rest = atEnd ? name.slice(0, first.at) : name.slice(words[count]?.at);
      return { facing, from: first.at, to: last.at + last.text.length, rest };
    }
  return null;
}

/** The ways in which people write facings, each in the order of `FACINGS`. */
const SPELLINGS: readonly (readonly string[])[] = [
  FACINGS,
  ["east", "southeast", "south", "southwest", "west", "northwest", "north", "northeast"],
  ["right", "downright", "down", "downleft", "left", "upleft", "up", "upright"],
  ["right", "downright", "front", "downleft", "left", "upleft", "back", "upright"],
];

/** The name with another facing replacing its own, in the same spelling; null for a name without one. */
export function withFacingInName(name: string, facing: Facing): string | null {
  const place = placeOfFacing(name);
  if (!place) return null;
  const written = name.slice(place.from, place.to);
  const plain = written.toLowerCase().replace(/[-_. ]/g, "");
  const spelling = SPELLINGS.find((each) => each[FACINGS.indexOf(place.facing)] === plain) ?? FACINGS;
  const word = spelling[FACINGS.indexOf(facing)] as string;
  const cased =
    written === written.toUpperCase() ? word.toUpperCase() : /^\p{Lu}/u.test(written) ? word[0]?.toUpperCase() + word.slice(1) : word;
  return `${name.slice(0, place.from)}${cased}${name.slice(place.to)}`;
}

/** Words of a name: separated by anything but letters and digits, before a capital after a small letter, and before digits. */
function wordsOf(name: string): { readonly text: string; readonly at: number }[] {
  return [...name.matchAll(/\p{Lu}+(?!\p{Ll})|\p{Lu}?[\p{Ll}\p{Lo}]+|\p{N}+/gu)].map((match) => ({ text: match[0], at: match.index }));
}

function trimmed(stem: string): string {
  return stem.replace(/^[\s\-_./]+|[\s\-_./]+$/g, "");
}

/** Numbered facings: the facing of the least number, and the direction of the others. */
export interface NumberedFrom {
  readonly first: Facing;
  readonly clockwise: boolean;
}

export interface MatchedAction<Name extends string> {
  /** The movement that the names share. */
  readonly stem: string;
  readonly ways: Ways;
  readonly facings: Partial<Record<Facing, Name>>;
  /** Whether numbers were read as facings. */
  readonly byNumber: boolean;
}

/**
 * Groups names that are one movement in several facings. Facings in words come before numbers; of duplicates the first in natural order is
 * kept. Groups of fewer than two facings are dropped. In natural order of stems.
 */
export function matchFacings<Name extends string>(names: readonly Name[], numbered: NumberedFrom): MatchedAction<Name>[] {
  const groups = new Map<string, { words: Map<Facing, Name>; numbers: Map<number, Name> }>();
  for (const name of names.toSorted(naturalOrder)) {
    const { stem, facing, number } = facingOfName(name);
    if (stem === "" || (facing === null && number === null)) continue;
    const group = groups.get(stem) ?? { words: new Map(), numbers: new Map() };
    groups.set(stem, group);
    if (facing !== null && !group.words.has(facing)) group.words.set(facing, name);
    if (number !== null && !group.numbers.has(number)) group.numbers.set(number, name);
  }
  const matched: MatchedAction<Name>[] = [];
  for (const [stem, { words, numbers }] of groups) {
    if (words.size >= 2)
      matched.push({ stem, ways: waysFor([...words.keys()]), facings: Object.fromEntries(words) as never, byNumber: false });
    else if (words.size === 0) {
      const ways = inARow([...numbers.keys()]);
      if (ways === null) continue;
      const order = roseFrom(ways, numbered);
      const sorted = [...numbers].sort((a, b) => a[0] - b[0]);
      matched.push({
        stem,
        ways,
        facings: Object.fromEntries(sorted.map(([, name], k) => [order[k], name])) as never,
        byNumber: true,
      });
    }
  }
  return matched.sort((a, b) => naturalOrder(a.stem, b.stem));
}

/** The smallest rose that has all of these facings. */
export function waysFor(facings: readonly Facing[]): Ways {
  return ([1, 2, 4, 8] as const).find((ways) => facings.every((each) => FACINGS_OF[ways].includes(each))) ?? 8;
}

/** The facings of a rose in order, starting from one of them, or from its own first if the rose lacks that. */
export function roseFrom(ways: Ways, { first, clockwise }: NumberedFrom): Facing[] {
  const rose = FACINGS_OF[ways];
  const start = Math.max(0, rose.indexOf(first));
  return rose.map((_, k) => rose[(start + (clockwise ? k : rose.length - k)) % rose.length] as Facing);
}

function inARow(numbers: readonly number[]): Ways | null {
  const sorted = numbers.toSorted((a, b) => a - b);
  if (!sorted.every((each, k) => each === (sorted[0] as number) + k)) return null;
  return ([2, 4, 8] as const).find((ways) => ways === sorted.length) ?? null;
}
