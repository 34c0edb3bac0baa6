/**
 * Writes the page to hand round: one HTML file that plays everything in a delivery with the player that games use. It makes no requests.
 */
import type { Atlas } from "../atlas";
import { type NamedFile, textFromUtf8, utf8 } from "../codec";
import { besidePath } from "../delivery-plan";
import { SCRIPT, STYLE } from "./handout-parts";

/** `files` are those that were delivered with the atlas; of them its pictures go into the page. */
export function handout(title: string, atlas: Atlas, files: readonly NamedFile[]): NamedFile {
  const bytes = new Map(files.map((file) => [file.path, file.bytes]));
  const wanted = new Set(atlas.pages.flatMap(({ image, layers = {} }) => [image, ...Object.values(layers)]));
  const pictures = Object.fromEntries(
    [...wanted].map((image) => [image, `data:image/png;base64,${base64(bytes.get(image) ?? new Uint8Array())}`]),
  );
  const html = `<!doctype html>
<html lang="en" translate="no">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; script-src 'unsafe-inline'; style-src 'unsafe-inline'; img-src data:">
<title>${asHtml(title)}</title>
<style>${STYLE}</style>
</head>
<body>
<main id="page"></main>
<script type="application/json" id="delivery">${asJson({ title, atlas, pictures })}</script>
<script>${SCRIPT}</script>
</body>
</html>
`;
  return { path: besidePath(title, "page"), bytes: utf8(html) };
}

function asHtml(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}

/** JSON that ends no script and opens no comment, whatever its names are. */
function asJson(content: unknown): string {
  return JSON.stringify(content).replace(/</g, "\\u003c");
}

const DIGITS = utf8("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/=");
const PAD = 64;

/** RFC 4648, section 4. */
function base64(bytes: Uint8Array): string {
  const text = new Uint8Array(Math.ceil(bytes.length / 3) * 4);
  for (let from = 0, to = 0; from < bytes.length; from += 3, to += 4) {
    const [a, b, c] = [bytes[from] as number, bytes[from + 1], bytes[from + 2]];
    const digits = [
      a >> 2,
      ((a & 3) << 4) | ((b ?? 0) >> 4),
      b === undefined ? PAD : ((b & 15) << 2) | ((c ?? 0) >> 6),
      c === undefined ? PAD : c & 63,
    ];
    for (const [k, digit] of digits.entries()) text[to + k] = DIGITS[digit] as number;
  }
  return textFromUtf8(text);
}
