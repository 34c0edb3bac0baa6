/**
 * Texts in the reader's language. English texts stand where they are made and serve as keys; another language is a list of translations,
 * loaded before the screens and kept until the page reloads. Nobody translates the command line, so it speaks English.
 */

/** Translations by English text; missing ones stay English. */
type Catalogue = Readonly<Record<string, string>>;

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
