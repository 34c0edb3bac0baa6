/** Spells values like the example does: its quotes, its decimals, its words for yes and no. */

import { CaravanError, type Facing } from "../model";
import { headOf, type Leaf, withPoint } from "../notation";
import { t } from "../words";
import type { Scope } from "./facts";
import type { Spelled, Spelling } from "./place";
import { FACING, facingLike, PLAYBACK, saysSame } from "./quantities";
import { facingWords, type Slot } from "./shape";

/** The text for `wanted` in the style of `spelled`; `raw` is the current text. The example's own text stays if it already says so. */
export function spelledAs(slot: Slot, wanted: Leaf, { means, as }: Spelled, raw: string, scope: Scope): string {
  const { quantity, seen } = slot;
  if (wanted === null || saysSame(quantity, means, scope, wanted)) return raw;
  const known = seen.find(({ value }) => saysSame(quantity, value, scope, wanted));
  if (known && typeof wanted !== "number") return known.raw;
  if (as === "comma" && typeof wanted === "number") {
    const seenWithPoint = seen.map((each) => ({ ...each, raw: withPoint(each.raw) }));
    const value = decimals({ ...slot, seen: seenWithPoint }, wanted, scope).replace(".", ",");
    return raw.startsWith('"') ? `"${value}"` : value;
  }
  const value = typeof wanted === "number" ? decimals(slot, wanted, scope) : inItsWords(slot, wanted, raw);
  const quoted = raw.startsWith('"');
  if (as === "json") return quoted ? JSON.stringify(value) : typeof wanted === "string" ? JSON.stringify(value) : value;
  if (as === "yaml" && typeof wanted !== "string") return value;
  return escaped(value, as, quoted, raw);
}

/** As many decimals as the example always has, otherwise as few as needed. */
function decimals({ quantity, seen }: Slot, wanted: number, scope: Scope): string {
  const counts = new Set(seen.map(({ raw }) => /\.(\d+)/.exec(raw)?.[1]?.length ?? 0));
  const [most = 0] = counts;
  if (counts.size === 1 && most > 0 && saysSame(quantity, Number(wanted.toFixed(most)), scope, wanted)) return wanted.toFixed(most);
  for (let count = 0; count < 6; count++) {
    const short = Number(wanted.toFixed(count));
    if (saysSame(quantity, short, scope, wanted)) return String(short);
  }
  return String(Number(wanted.toFixed(6)));
}

const OPPOSITES: readonly (readonly [string, string])[] = [
  ["true", "false"],
  ["True", "False"],
  ["TRUE", "FALSE"],
  ["yes", "no"],
  ["Yes", "No"],
  ["1", "0"],
  ["90", "0"],
];

function inItsWords(slot: Slot, wanted: string | boolean, raw: string): string {
  const { quantity, seen } = slot;
  const bare = raw.replace(/^"(.*)"$/, "$1");
  if (typeof wanted === "boolean") {
    const pair = OPPOSITES.find((each) => each[wanted ? 1 : 0] === bare.replace(/[</>\s]/g, ""));
    return pair ? bare.replace(pair[wanted ? 1 : 0], pair[wanted ? 0 : 1]) : String(wanted);
  }
  if (quantity === FACING) return facingLike(wanted as Facing, facingWords(slot));
  if (quantity === PLAYBACK && seen.every(({ value }) => typeof value !== "string")) {
    const yes = seen.find(({ value }) => quantity.means?.(value) === "loop")?.raw;
    const opposite = OPPOSITES.find((each) => each.includes(bare as never));
    return (wanted === "once" ? opposite?.[1] : (yes ?? opposite?.[0]))?.replace(/^"(.*)"$/, "$1") ?? String(wanted !== "once");
  }
  return wanted;
}

/** In the existing quotes; without any only if the text then means itself. */
function inYaml(value: string, raw: string): string {
  if (raw.startsWith("'")) return /[\r\n]/.test(value) ? JSON.stringify(value) : `'${value.replaceAll("'", "''")}'`;
  const itself =
    /^[\p{L}_][\p{L}\p{N}_./+-]*(?: [\p{L}\p{N}_./+-]+)*$/u.test(value) && !/^(true|false|yes|no|on|off|null|y|n)$/i.test(value);
  return itself && !raw.startsWith('"') ? value : JSON.stringify(value);
}

function escaped(value: string, as: Spelling, quoted: boolean, raw: string): string {
  switch (as) {
    case "attribute":
      return value.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll('"', "&quot;").replaceAll("'", "&apos;");
    case "element":
      return value.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;");
    case "cell":
    case "comma":
      return quoted || /[",;\t|\r\n#]/.test(value) ? `"${value.replaceAll('"', '""')}"` : value;
    case "head":
      if (headOf(value) !== value)
        throw new CaravanError(
          "bad-name",
          `"${value}"`,
          t("The example's shape cannot hold this name on a line."),
          t("Remove spaces and = : , ; | from it."),
        );
      return value;
    case "yaml":
      return inYaml(value, raw);
    case "plain":
      return quoted ? `"${value}"` : value.replace(/[\r\n]+/g, " ");
    default:
      return value;
  }
}
