/** Opens what is left of a damaged `*.caravan` file. */
import { hasItsChecksum, remainsOfZip, sha256Hex, textFromUtf8 } from "../codec";
import { counted, readableJson, salvaged, withDistinctPaths } from "../model";
import { t } from "../words";
import { type Bundle, MOST_DOCUMENT, metadataFilesOf, PROJECT_FILE, textsIn } from "./bundle";
import { picturesOf } from "./pictures-of";

export interface SalvagedBundle extends Required<Bundle> {
  /** What was left out, in words. Sources of pictures that are lost stay: their art can be added again. */
  readonly lost: readonly string[];
}

/** Pictures in all, unpacked. */
const MOST_PICTURE_BYTES = 500 * 1_048_576;

/** Null if no document can be read from it, or none of a version that is known here. */
export function salvagedBundle(bytes: Uint8Array, where: string): SalvagedBundle | null {
  const [document] = remainsOfZip(bytes, (path) => path === PROJECT_FILE, MOST_DOCUMENT);
  const read = document && readableJson(textOf(document.bytes));
  const found = read && salvaged(read.value, where);
  if (!found) return null;
  const project = withDistinctPaths(found.project);
  const named = new Set<string>(picturesOf(found.project).map(({ file }) => file));
  // By content: what is damaged is not the picture, and one that was only renamed still is.
  const pictures = new Map<string, Uint8Array>();
  for (const file of remainsOfZip(bytes, (path) => named.has(path), MOST_PICTURE_BYTES)) pictures.set(sha256Hex(file.bytes), file.bytes);
  const wanted = new Set<string>(picturesOf(project).map(({ sha256 }) => sha256));
  const gone = [...wanted].filter((sha256) => !pictures.has(sha256)).length;
  for (const sha256 of pictures.keys()) if (!wanted.has(sha256)) pictures.delete(sha256);
  const unsure = hasItsChecksum(bytes, document) ? [] : [t("certainty that the rest is right, because its checksum differs")];
  const art = gone === 0 ? [] : [t("the art of {pictures}", { pictures: counted(gone, "picture") })];
  const texted = new Set(metadataFilesOf(project).map(({ path }) => path));
  const told = remainsOfZip(bytes, (path) => texted.has(path), MOST_DOCUMENT);
  const texts = textsIn(project, new Map(told.map((file) => [file.path, file.bytes])));
  const rest = read.isWhole ? [] : [t("what follows a damaged place in its document")];
  return { project, pictures, texts, lost: [...found.lost, ...rest, ...art, ...unsure] };
}

/** Nothing if it is no UTF-8. */
function textOf(bytes: Uint8Array): string {
  try {
    return textFromUtf8(bytes);
  } catch {
    return "";
  }
}
