/** The texts of metadata files that cut sources, of each the last few, in this browser. */
import type { Project, Source } from "@caravan/core/model";
import { useOpenProject } from "./open-project";
import { type KeptText, type StoredText, storage } from "./storage";

/** Earlier texts of a source are kept up to this many, and this many characters in all. */
const MOST_EARLIER = 8;
const MOST_CHARACTERS = 8_000_000;

/** Texts that there was no room for, for as long as the page is open; by project, source and hash. */
const homeless = new Map<string, KeptText>();

/** Keeps the text that cuts the source now, of the open project unless another is given. */
export async function keepTextOf({ id: source, cut }: Source, text: string, id = useOpenProject.getState().id): Promise<void> {
  if (id === null || cut?.by !== "metadata") return;
  const { file, sha256 } = cut;
  const kept: KeptText = { file, text, ...(sha256 === undefined ? {} : { sha256 }) };
  const key = `${id} ${source} ${sha256}`;
  // Found at once, whatever storage takes.
  homeless.set(key, kept);
  try {
    await storage.transaction("rw", storage.texts, async () => {
      const before = await storage.texts.get([id, source]);
      const all = before ? [before, ...(before.earlier ?? [])] : [];
      const earlier = all
        .filter((each) => each.sha256 !== sha256)
        .map(({ file, sha256, text }) => ({ file, text, ...(sha256 ? { sha256 } : {}) }));
      await storage.texts.put({ project: id, source, ...kept, earlier: asManyAsFit(earlier, text.length) });
    });
    homeless.delete(key);
  } catch {
    // There is no room, or the page is closing: it is still held here.
  }
}

/** Keeps the texts that came with a project's file, by hash. It opens without them where there is no room. */
export async function keepTextsThatCame(id: string, { sources }: Project, texts: ReadonlyMap<string, string>): Promise<void> {
  const rows = sources.flatMap(({ id: source, cut }): StoredText[] => {
    if (cut?.by !== "metadata" || cut.sha256 === undefined) return [];
    const { file, sha256 } = cut;
    const text = texts.get(sha256);
    return text === undefined ? [] : [{ project: id, source, file, sha256, text }];
  });
  try {
    await storage.texts.bulkPut(rows);
  } catch {
    for (const { source, file, sha256, text } of rows)
      homeless.set(`${id} ${source} ${sha256}`, { file, text, ...(sha256 === undefined ? {} : { sha256 }) });
  }
}

/** The texts that cut sources of a project, by hash, as far as they are known; without `id`, of the open one. */
export async function textsOf({ sources }: Project, id = useOpenProject.getState().id): Promise<[sha256: string, text: string][]> {
  const found = await Promise.all(sources.map(async (source) => [source.cut, await textOf(source, id)] as const));
  return found.flatMap(([cut, kept]): [string, string][] =>
    cut?.by === "metadata" && cut.sha256 !== undefined && kept ? [[cut.sha256, kept.text]] : [],
  );
}

/** The text that cuts the source, of the open project unless another is given; null if this browser does not have it. */
export async function textOf(of: Source, id = useOpenProject.getState().id): Promise<KeptText | null> {
  const { id: source, cut } = of;
  if (id === null || cut?.by !== "metadata") return null;
  const { file, sha256 } = cut;
  const held = homeless.get(`${id} ${source} ${sha256}`);
  if (held) return held;
  // Sources of former versions do not say which text it was: the last of that name.
  const fits = (each: KeptText) => (sha256 === undefined ? each.file === file : each.sha256 === sha256);
  const fitting = (row: StoredText | undefined) => row && [row, ...(row.earlier ?? [])].find(fits);
  try {
    const own = fitting(await storage.texts.get([id, source]));
    if (own || sha256 === undefined) return own ?? null;
    // A copy of a project, or one that was opened from a file that was saved here.
    const other = fitting(await storage.texts.filter((row) => fitting(row) !== undefined).first());
    // Its own from now on: the other project may be deleted.
    if (other) await keepTextOf(of, other.text, id);
    return other ?? null;
  } catch {
    return null;
  }
}

function asManyAsFit(texts: readonly KeptText[], before: number): KeptText[] {
  let characters = before;
  return texts.slice(0, MOST_EARLIER).filter(({ text }) => {
    characters += text.length;
    return characters <= MOST_CHARACTERS;
  });
}
