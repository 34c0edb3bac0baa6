/** Schema of user data on frames, clips and events: names with values that Caravan carries and never interprets. */
import * as z from "zod";
import { t } from "../words";
import { CaravanError } from "./error";
import { Name } from "./name";

/** Longest value as JSON text, in characters. */
const LONGEST_VALUE = 10_000;
/** The most values on one thing. */
export const MOST_DATA = 200;

/** Anything that JSON can say. */
export type DataValue = string | number | boolean | null | readonly DataValue[] | { readonly [name: string]: DataValue };

const DataValue = z
  .unknown()
  .refine((value) => isDataValue(value), `A value is JSON with at most ${LONGEST_VALUE} characters.`)
  .describe("Any JSON: true makes it a tag.");

export const UserData = z
  .array(z.strictObject({ name: Name, value: DataValue as unknown as z.ZodType<DataValue> }))
  .min(1)
  .max(MOST_DATA)
  .describe("Each name once, in order.");
export type UserData = z.infer<typeof UserData>;
export type DataEntry = UserData[number];

/**
 * Whether it can be written as JSON and read again unchanged. A field called `__proto__` cannot in many languages, so nothing that holds one
 * is a value.
 */
export function isDataValue(value: unknown): value is DataValue {
  return isJson(value, 0) && JSON.stringify(value).length <= LONGEST_VALUE;
}

/** Nested deeper than this is no data that a person wrote. */
const DEEPEST = 16;

function isJson(value: unknown, depth: number): boolean {
  if (value === null || typeof value === "string" || typeof value === "boolean") return true;
  if (typeof value === "number") return Number.isFinite(value) && !Object.is(value, -0);
  if (typeof value !== "object" || depth >= DEEPEST) return false;
  if (Array.isArray(value)) return value.every((each) => isJson(each, depth + 1));
  return Object.keys(value).every((name) => name !== "__proto__" && isJson((value as Record<string, unknown>)[name], depth + 1));
}

/**
 * A value as a person types it: JSON if the text is JSON, nothing for a tag, otherwise the text itself. Throws `bad-number` for invalid
 * values.
 */
export function valueFromText(text: string, where: string): DataValue {
  const typed = text.trim();
  if (typed === "") return true;
  const value = jsonOr(typed);
  if (!isDataValue(value))
    throw new CaravanError(
      "bad-number",
      where,
      t(
        "This value is not allowed: at most {longestValue} characters, {deepest} levels deep, numbers that JSON can hold, nothing called __proto__.",
        { longestValue: LONGEST_VALUE, deepest: DEEPEST },
      ),
      t("Type text, a number, true, false, null, a list or an object."),
    );
  return value;
}

/** A value in the form that `valueFromText` reads back: text without quotes, unless it would be read as something else. */
export function textOfValue(value: DataValue): string {
  if (value === true) return "";
  if (typeof value !== "string") return JSON.stringify(value);
  return value.trim() === value && value !== "" && jsonOr(value) === value ? value : JSON.stringify(value);
}

function jsonOr(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

/** Whether two values say the same. */
export function sameValue(a: DataValue | undefined, b: DataValue | undefined): boolean {
  return a === b || (a !== undefined && b !== undefined && JSON.stringify(a) === JSON.stringify(b));
}

/** The value under a name. */
export function valueIn(data: readonly DataEntry[] | undefined, name: string): DataValue | undefined {
  return data?.find((each) => each.name === name)?.value;
}
