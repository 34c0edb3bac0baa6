/** Files that stand in the place of another one, or whose bytes were changed on the way, as checkouts, copies and crashes leave them. */
import { CaravanError } from "../model";
import { t } from "../words";

/** Bytes: pointers are shorter. */
const LONGEST_POINTER = 1024;
/** As version control writes them for large files: a version, other fields, a hash and the size in bytes, a line each. */
const POINTER = /^version https?:\/\/\S+\r?\n(?:[a-z0-9.-]+ .*\r?\n)*?oid \w+:[0-9a-f]{32,}\r?\n(?:[a-z0-9.-]+ .*\r?\n)*?size (\d+)\s*$/;

/**
 * Throws `not-here` for a file with no contents of its own: a pointer that version control keeps in place of a large file, or nothing but
 * zero bytes. `where` names it. Cost: O(1), but for zeros.
 */
export function refuseStandIn(bytes: Uint8Array, where: string): void {
  const size = bytes.length < LONGEST_POINTER ? POINTER.exec(new TextDecoder().decode(bytes))?.[1] : undefined;
  if (size !== undefined)
    throw new CaravanError(
      "not-here",
      where,
      t("This is only a pointer: version control keeps the file itself, of {size} bytes, elsewhere.", { size }),
      t("Fetch the large files of the repository first."),
    );
  if (bytes.length > 0 && bytes[0] === 0 && bytes.every((byte) => byte === 0))
    throw new CaravanError(
      "not-here",
      where,
      t("All of its {size} bytes are zero: its contents are lost, as after a crash or in a copy that broke off.", { size: bytes.length }),
      t("Take another copy of the file."),
    );
}

/** What happened to a PNG file that was taken for text, or null; its signature is made to show it (PNG specification, section 5.2). */
export function changedAsText(bytes: Uint8Array): string | null {
  const signature = String.fromCharCode(...bytes.subarray(0, 12));
  if (/^(?:\xef\xbf\xbd|\xc2\x89)PNG/.test(signature)) return t("This PNG file was saved as text, which changed its bytes.");
  if (/^\x89PNG(?:\n|\r(?!\n))/.test(signature)) return t("The line ends of this PNG file were converted as if it were text.");
  return /^\tPNG/.test(signature) ? t("This PNG file lost the highest bit of its bytes on the way.") : null;
}
