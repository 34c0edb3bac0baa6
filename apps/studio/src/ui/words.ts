/**
 * What the studio says, in the language of the reader. Texts stand where they are shown, in English, and English is their key: another
 * language is a list of what it says instead. It is chosen before the screens are loaded, and stays until the page is loaded anew.
 */

/** What a language says instead of the English text, by that text; what is missing stays English. */
export type Catalogue = Readonly<Record<string, string>>;

type GapsOf<Text extends string> = Text extends `${string}{${infer Gap}}${infer Rest}` ? Gap | GapsOf<Rest> : never;

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
  const said = Object.hasOwn(catalogue, text) ? (catalogue[text] as string) : text;
  if (!values) return said;
  const filling: Readonly<Record<string, string | number>> = values;
  return said.replaceAll(/\{(\w+)\}/g, (gap, name: string) => (Object.hasOwn(filling, name) ? String(filling[name]) : gap));
}
