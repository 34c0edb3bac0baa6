import { CaravanError } from "../model";
import { t } from "../words";

/** More steps than any clip has, so that a slip such as 1-1000000 does not fill the memory. */
const MOST = 10_000;

/**
 * Numbers as people write lists of them: `3-9, 12, 9-3`; a range descends if its first number is larger, and `4x3` is 4 three times. Throws
 * `bad-number` with the part that cannot be read, or with the first number outside `least` to `most`.
 */
export function parseRanges(text: string, least: number, most: number): number[] {
  const refuse = (part: string, what: string) =>
    new CaravanError(
      "bad-number",
      `"${part.trim()}"`,
      what,
      t("Write numbers from {least} to {most} such as {least}-{some}, {most}.", { least, most, some: Math.min(most, least + 3) }),
    );
  const numbers: number[] = [];
  for (const part of text.split(/[,;\s]+(?=\S)/).filter((each) => each.trim() !== "")) {
    const match = /^\s*(\d+)(?:\s*(?:-|–|\.\.)\s*(\d+))?(?:\s*[x×*]\s*(\d+))?\s*[,;]?\s*$/.exec(part);
    if (!match) throw refuse(part, t("This is neither a number nor a range."));
    const [first, last, times] = [Number(match[1]), Number(match[2] ?? match[1]), Number(match[3] ?? 1)];
    for (const end of [first, last])
      if (end < least || end > most) throw refuse(part, t("There is no {end}: numbers go from {least} to {most}.", { end, least, most }));
    if (numbers.length + (Math.abs(last - first) + 1) * times > MOST)
      throw refuse(part, t("This is more than {most} numbers.", { most: MOST }));
    const step = Math.sign(last - first) || 1;
    for (let round = 0; round < times; round++) for (let number = first; number !== last + step; number += step) numbers.push(number);
  }
  return numbers;
}
