/** Whether a text mentions a file, however it writes the name. */
import { pathKey } from "../model";

/**
 * For one text, a test of names such as `héros.png`, or of beginnings such as `héros.`: without capitals, with letters and their accents
 * joined or apart (Unicode normalisation form C), escaped as JSON and XML may escape them, and never the end of another name
 * (`superhero.png` does not mention `hero.png`). Cost: O(text), and then O(text) for each name.
 */
export function mentionsIn(text: string): (name: string) => boolean {
  const plain = pathKey(unescaped(text));
  return (name) => {
    const wanted = pathKey(name);
    for (let at = plain.indexOf(wanted); at >= 0; at = plain.indexOf(wanted, at + 1))
      if (!endsInName(plain.slice(Math.max(0, at - 2), at))) return true;
    return false;
  };
}

function endsInName(before: string): boolean {
  return /[\p{L}\p{M}\p{N}_-]$/u.test(before);
}

function unescaped(text: string): string {
  return text
    .replace(/\\u([0-9a-f]{4})/gi, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)))
    .replace(/&#(?:x([0-9a-f]{1,6})|(\d{1,7}));/gi, (whole, hex?: string, decimal?: string) => {
      const code = hex ? Number.parseInt(hex, 16) : Number(decimal);
      return code <= 0x10ffff ? String.fromCodePoint(code) : whole;
    });
}
