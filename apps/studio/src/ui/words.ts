/** Texts of the screen, and how short ones are joined. */
import { t } from "@caravan/core/words";

export { type GapsOf, inLanguage, t } from "@caravan/core/words";

/** Short facts about one thing in a row; those that do not apply are left out. Each is a text of its own. */
export function facts(...each: readonly (string | number | false | null | undefined)[]): string {
  return each.filter((fact) => typeof fact === "number" || Boolean(fact)).join(" · ");
}

/** A name with what is true of it: `walk/3, dropped`. What does not apply is left out. */
export function nameAnd(name: string, ...states: readonly (string | false | null | undefined)[]): string {
  return [name, ...states.filter(Boolean)].join(", ");
}

/** The first `most` names and how many more there are: `walk, idle and 7 more`. */
export function listInWords(names: readonly string[], most: number): string {
  const listed = names.slice(0, most).join(", ");
  return names.length > most ? t("{listed} and {more} more", { listed, more: names.length - most }) : listed;
}
