/**
 * The studio's texts in the user's language. English texts stand where they are shown and serve as keys; another language is a list of
 * translations, loaded before the screens and kept until the page reloads.
 */

/** Translations by English text; missing ones stay English. */
export type Catalogue = Readonly<Record<string, string>>;

export type GapsOf<Text extends string> = Text extends `${string}{${infer Gap}}${infer Rest}` ? Gap | GapsOf<Rest> : never;

/** What fills the gaps of a text: nothing where it has none. */
type Filling<Text extends string> = [GapsOf<Text>] extends [never] ? [] : [values: { readonly [Gap in GapsOf<Text>]: string | number }];

let catalogue: Catalogue = {};

/** Speaks another language from now on. */
export function speak(next: Catalogue): void {
  catalogue = next;
}

/**
 * A text in the reader's language, its gaps filled: `t("{frames} in {clip}", { frames, clip })`. A gap without a value, or a value without a
 * gap, does not compile; a translation may place them otherwise.
 */
export function t<const Text extends string>(text: Text, ...[values]: Filling<Text>): string {
  const said = inLanguage(text);
  if (!values) return said;
  const filling: Readonly<Record<string, string | number>> = values;
  return said.replaceAll(/\{(\w+)\}/g, (gap, name: string) => (Object.hasOwn(filling, name) ? String(filling[name]) : gap));
}

/** A text in the reader's language with its gaps still open. */
export function inLanguage(text: string): string {
  return Object.hasOwn(catalogue, text) ? (catalogue[text] as string) : text;
}

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
