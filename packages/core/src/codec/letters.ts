/**
 * Guesses which letters bytes beyond ASCII stand for, where nothing says so: old encodings of East Asian and Cyrillic writing, otherwise a
 * given one of Western Europe.
 *
 * East Asian letters take two bytes each, and stand next to one another; the accented letters of Western Europe take one, and mostly stand
 * alone. Among the encodings in which everything is such letters, that one wins whose commonest letters it would be.
 * Source: WHATWG Encoding Standard (tables); levels of JIS X 0208, GB 2312, Big5 and KS X 1001 (commonness). A guess: say so.
 */
import { t } from "../words";

export interface Letters {
  /** As `TextDecoder` calls it. */
  readonly encoding: string;
  /** Whose letters they are, in words. */
  readonly words: string;
}

/** How common a letter is, from 0 to 1.5, by itself and its two bytes; below 0 if it hardly stands in a name. */
type Commonness = (letter: number, lead: number, trail: number) => number;

interface Wide {
  readonly encoding: string;
  readonly words: () => string;
  readonly common: Commonness;
}

const isHan = (letter: number) => letter >= 0x4e00 && letter <= 0x9fff;
const isWidePunctuation = (letter: number) => (letter >= 0x3000 && letter <= 0x303f) || (letter >= 0xff01 && letter <= 0xff5e);
const within = (byte: number, from: number, to: number) => byte >= from && byte <= to;

const WIDE: readonly Wide[] = [
  {
    encoding: "shift_jis",
    words: () => t("Japanese"),
    common: (letter, lead) => (within(letter, 0x3040, 0x30ff) ? 1.5 : isHan(letter) ? (within(lead, 0x88, 0x97) ? 1.1 : 0.9) : UNCOMMON),
  },
  {
    encoding: "gbk",
    words: () => t("simplified Chinese"),
    common: (letter, lead, trail) => (!isHan(letter) ? UNCOMMON : trail < 0xa1 || lead < 0xb0 ? 0.3 : within(lead, 0xb0, 0xd7) ? 1.3 : 0.8),
  },
  {
    encoding: "euc-kr",
    words: () => t("Korean"),
    // The same bytes are common Chinese letters: of those a name of several would have some beyond.
    common: (letter, lead, trail) => (within(letter, 0xac00, 0xd7a3) ? (within(lead, 0xb0, 0xc8) && trail >= 0xa1 ? 1.31 : 0.3) : UNCOMMON),
  },
  {
    encoding: "big5",
    words: () => t("traditional Chinese"),
    common: (letter, lead) => (isHan(letter) ? (within(lead, 0xa4, 0xc6) ? 1.2 : 0.5) : UNCOMMON),
  },
];

/** What a letter counts that is none of the writing. */
const UNCOMMON = -1;
/** The least commonness, on average. */
const LEAST = 0.95;
/** The least part of such letters that stand next to another. */
const LEAST_BESIDE = 0.6;
/** The least length of a run of Cyrillic letters, on average. */
const LEAST_RUN = 3;

/** `usual` is the encoding of one byte that is assumed if nothing else is likelier, and `cyrillic` the one of the same systems. */
export function lettersOf(texts: readonly Uint8Array[], usual: Letters, cyrillic: string): Letters {
  const beyond = texts.filter((text) => text.some((byte) => byte > 127));
  let best: { readonly letters: Letters; readonly common: number } = { letters: usual, common: LEAST };
  for (const { encoding, words, common } of WIDE) {
    const found = commonnessIn(beyond, encoding, common);
    if (found > best.common) best = { letters: { encoding, words: words() }, common: found };
  }
  if (best.letters === usual && isCyrillic(beyond, cyrillic)) return { encoding: cyrillic, words: t("Cyrillic") };
  return best.letters;
}

/** On average over the letters beyond ASCII; 0 if bytes stand for none, or letters for other writing. */
function commonnessIn(texts: readonly Uint8Array[], encoding: string, common: Commonness): number {
  const decoder = new TextDecoder(encoding, { fatal: true });
  let sum = 0;
  let letters = 0;
  let beside = 0;
  for (const text of texts)
    for (const run of runsBeyondAscii(text)) {
      const own = pairsIn(run, decoder);
      if (!own) return 0;
      for (const { letter, lead, trail } of own) if (!isWidePunctuation(letter)) sum += common(letter, lead, trail);
      const counted = own.filter(({ letter }) => !isWidePunctuation(letter)).length;
      letters += counted;
      if (own.length > 1) beside += counted;
    }
  return letters === 0 || beside < letters * LEAST_BESIDE ? 0 : sum / letters;
}

/** Runs of letters of two bytes: one begins with a byte beyond ASCII and goes on as long as such bytes lead the next. */
function runsBeyondAscii(text: Uint8Array): Uint8Array[] {
  const runs: Uint8Array[] = [];
  for (let at = 0; at < text.length; at++) {
    if ((text[at] as number) < 128) continue;
    let end = at;
    while (end < text.length && (text[end] as number) > 127) end += 2;
    runs.push(text.subarray(at, Math.min(end, text.length)));
    at = end - 1;
  }
  return runs;
}

/** Null if the bytes are not letters of two bytes each. */
function pairsIn(run: Uint8Array, decoder: InstanceType<typeof TextDecoder>): { letter: number; lead: number; trail: number }[] | null {
  if (run.length % 2 !== 0) return null;
  try {
    const decoded = Array.from(decoder.decode(run));
    if (decoded.length !== run.length / 2) return null;
    return decoded.map((each, k) => ({
      letter: each.codePointAt(0) as number,
      lead: run[2 * k] as number,
      trail: run[2 * k + 1] as number,
    }));
  } catch {
    return null;
  }
}

function isCyrillic(texts: readonly Uint8Array[], encoding: string): boolean {
  const decoder = new TextDecoder(encoding);
  const decoded = texts.map((text) => decoder.decode(text)).join("\n");
  const beyond = [...decoded].filter((letter) => letter > "\u007f").length;
  const runs = decoded.match(/[\u0400-\u045f]+/g) ?? [];
  const letters = runs.reduce((sum, { length }) => sum + length, 0);
  return letters > 0 && letters === beyond && letters / runs.length >= LEAST_RUN;
}
