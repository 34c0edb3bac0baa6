/** Parses option values. A bad value is a wrong call: commander reports it and exits with 2. */
import { FileStem, MOST_GROUNDS } from "@caravan/core/model";
import { InvalidArgumentError } from "commander";

/** `32x40`, also with × or a capital X. */
export function pair(text: string): { readonly a: number; readonly b: number } {
  const match = /^(\d{1,6})[xX×](\d{1,6})$/.exec(text);
  const a = Number(match?.[1]);
  const b = Number(match?.[2]);
  if (!match || a < 1 || b < 1) throw new InvalidArgumentError("Write two whole numbers above 0 with an x between, such as 32x40.");
  return { a, b };
}

/** `2` for both directions, or `2,4` for along and down. */
export function spacing(text: string): { x: number; y: number } {
  const match = /^(\d{1,6})(?:,(\d{1,6}))?$/.exec(text);
  if (!match) throw new InvalidArgumentError("Write one whole number, or two with a comma between, such as 1 or 2,4.");
  const x = Number(match[1]);
  return { x, y: match[2] === undefined ? x : Number(match[2]) };
}

/** A whole number from `least` to `most`. */
export function whole(least: number, most: number) {
  return (text: string): number => {
    const number = /^\d{1,9}$/.test(text) ? Number(text) : Number.NaN;
    if (!(number >= least && number <= most)) throw new InvalidArgumentError(`Write a whole number from ${least} to ${most}.`);
    return number;
  };
}

/** Times in milliseconds with commas between. */
export function times(text: string): number[] {
  return text.split(",").map((part) => {
    const ms = /^\s*\d+(\.\d+)?\s*$/.test(part) ? Number(part) : Number.NaN;
    if (!Number.isFinite(ms)) throw new InvalidArgumentError("Write times in milliseconds with commas between, such as 0,100,250.5.");
    return ms;
  });
}

/** The start of file names; what file systems refuse is refused here. */
export function fileStem(text: string): string {
  const parsed = FileStem.safeParse(text);
  if (!parsed.success) throw new InvalidArgumentError(parsed.error.issues[0]?.message ?? "");
  return parsed.data;
}

/** `3` or `-2,5`: along and down, below 0 too. */
export function offset(text: string): { x: number; y: number } {
  const match = /^(-?\d{1,6})(?:,(-?\d{1,6}))?$/.exec(text);
  if (!match) throw new InvalidArgumentError("Write one whole number, or two with a comma between, such as 3 or -2,5.");
  const x = Number(match[1]);
  return { x, y: match[2] === undefined ? x : Number(match[2]) };
}

/** `2` or `0-7`: places counted from 0, both included. */
export function range(text: string): { first: number; last: number } {
  const match = /^(\d{1,5})(?:-(\d{1,5}))?$/.exec(text);
  const first = Number(match?.[1]);
  const last = match?.[2] === undefined ? first : Number(match[2]);
  if (!match || last < first)
    throw new InvalidArgumentError("Write a number, or two with a dash between and the smaller first, such as 0-7.");
  return { first, last };
}

const COLOURS: Record<string, string> = { white: "#ffffff", black: "#000000", magenta: "#ff00ff", green: "#00ff00", blue: "#0000ff" };

/** `auto`, or colours with commas between, each as `#rrggbb`, `#rgb`, without the sign, or a plain colour's name. */
export function coloursOrAuto(text: string): readonly string[] | "auto" {
  if (text.toLowerCase() === "auto") return "auto";
  const colours = text.toLowerCase().split(",").map(colour);
  if (colours.length > MOST_GROUNDS) throw new InvalidArgumentError(`Give at most ${MOST_GROUNDS} colours.`);
  return colours;
}

function colour(plain: string): string {
  const hex = COLOURS[plain] ?? (plain.startsWith("#") ? plain : `#${plain}`);
  if (/^#[0-9a-f]{6}$/.test(hex)) return hex;
  if (/^#[0-9a-f]{3}$/.test(hex)) return `#${[...hex.slice(1)].map((digit) => digit + digit).join("")}`;
  throw new InvalidArgumentError("Write auto, or a colour such as #ff00ff or white, or several with commas between.");
}
