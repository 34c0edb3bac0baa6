/** Names incoming things after their files, or after their folders where those say more. */
import { facingOfWord } from "../facing";
import { fileOf } from "./drop-contents";

/**
 * Names for the things of one drop, in order: the plain name, prefixed with its folder if two folders contain the same name, or if the
 * plain name is only a facing (`walk/s/1.png`).
 */
export function namesInFolders(things: readonly { readonly path: string; readonly plain: string }[]): string[] {
  const folders = things.map(({ path }) => path.split("/").slice(0, -1));
  const owners = new Map<string, Set<string>>();
  for (const [k, { plain }] of things.entries()) {
    const all = owners.get(plain) ?? new Set();
    owners.set(plain, all.add((folders[k] as string[]).join("/")));
  }
  return things.map(({ plain }, k) => {
    const folder = folders[k] as string[];
    const last = folder.at(-1);
    // A series of bare numbers is called by its folder already.
    const above = last === withoutEnding(plain) ? folder.at(-2) : last;
    const shared = (owners.get(plain)?.size ?? 0) > 1;
    if (above === undefined || !(shared || facingOfWord(withoutEnding(plain)) !== null)) return plain;
    return `${above}-${plain}`;
  });
}

/** A file's name without folders and ending. Some systems keep letters and their accents apart; in names they are joined. */
export function withoutEnding(path: string): string {
  return fileOf(path)
    .normalize("NFC")
    .replace(/(?<=.)\.[^.]*$/, "");
}

/** Whether a file is called as texts are that may describe pictures. */
export function isTextFile(path: string): boolean {
  return /\.(json|xml|ya?ml|toml|csv|tsv|txt|atlas|plist|ini|cfg|css|lua|js|ts|py)$/i.test(path);
}

/** Whether a file is called as pictures are that can be imported, animations and layered ones included. */
export function isArtFile(path: string): boolean {
  return /\.(a?png|gif|webp|jpe?g|avif|bmp|tga|ora)$/i.test(path);
}

/** Whether a file or folder at a path with `/` is nobody's art: hidden, left by a system, or of an installed package. */
export function isPassedBy(path: string): boolean {
  return /(^|\/)(\.|(__MACOSX|node_modules)(\/|$)|(thumbs\.db|desktop\.ini)$)/i.test(path);
}
