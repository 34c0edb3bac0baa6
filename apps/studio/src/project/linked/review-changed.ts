/** Shows what changed in the linked folder, and remembers what was decided on. */
import { isArtFile } from "@caravan/core/intake";
import { allPictures, type Source, type SourceId, sheetOf, stemOf } from "@caravan/core/model";
import { inBackground } from "../../ui/in-background";
import { say, sayTrouble } from "../../ui/notices";
import { t } from "../../ui/words";
import { isSaved, saveNow } from "../autosave";
import { type Begun, begin } from "../begun";
import { pictureBlob } from "../picture-files";
import { type StoredLink, storage } from "../storage";
import { stampOf } from "./compare";
import { filesOf, handedFrom } from "./folder-art";
import { useLinkedFolder } from "./linked";
import { lookAgain } from "./linked-folder";
import { type Match, matchFiles, pathsOf } from "./match";

let seeing = false;

/** Shows what changed: what has new metadata together, as if it was dropped, then source after source. Asked twice, it is shown once. */
export function seeChanged(): void {
  if (seeing) return;
  seeing = true;
  const project = useLinkedFolder.getState().linked?.project;
  inBackground(
    reviewNext(project, [])
      .catch(sayTrouble)
      .finally(() => {
        seeing = false;
      }),
  );
}

/** Sources that a person decided on, or whose files are at fault: the others are gone on with. Null if the person did not decide. */
type Over = readonly SourceId[] | null;

/** `over` are sources that this time are not looked at again: their files may be damaged, and still are news. */
async function reviewNext(project: string | undefined, over: readonly SourceId[]): Promise<void> {
  const { linked } = useLinkedFolder.getState();
  const link = linked && (await storage.links.get(linked.project));
  const work = begin();
  if (!linked || !link || work.id !== project || linked.project !== project) return;
  const files = await filesOf(link, work.project.sources);
  const described = new Map([...linked.described].filter(([id]) => !over.includes(id)));
  const [changed] = linked.changed.filter((id) => !over.includes(id));
  if (changed === undefined) return;
  const next = described.size > 0 ? await reviewDescribed(work, described, link, files) : await reviewArt(work, changed, link, files);
  if (next !== null) await reviewNext(project, [...over, ...next]);
}

/** Files by their paths in the folder. */
type Files = ReadonlyMap<string, File>;

/** Sources with new metadata, with their art. */
async function reviewDescribed(work: Begun, described: ReadonlyMap<SourceId, string>, link: StoredLink, files: Files): Promise<Over> {
  const { matches } = matchFiles(work.project.sources, [...files.keys()].filter(isArtFile), link.folder.name, link.chosen);
  const of = new Map<string, SourceId[]>();
  for (const [id, metadata] of described) {
    of.set(metadata, [...(of.get(metadata) ?? []), id]);
    const [art] = pathsOf(matches.get(id) ?? NO_MATCH);
    if (art !== undefined) of.set(art, [id]);
  }
  const { takeInAll } = await import("../import-files");
  work.still();
  const handed = [...of].flatMap(([path, ids]) => {
    const file = files.get(path);
    return file ? [{ ...handedFrom(link.folder, [path, file]), of: ids }] : [];
  });
  if (handed.length < of.size) return isGone(link);
  const taken = await takeInAll(handed);
  const ids = [...described.keys()];
  if (!taken) return ids;
  if (!(await taken.done)) return null;
  await decide(work, link, files, [...of.keys()], ids);
  return ids;
}

const NO_MATCH: Match = { from: "each", paths: [] };

/** What had changed when the folder was last looked at is not there any more. */
async function isGone({ folder: { name } }: StoredLink): Promise<null> {
  say({ tone: "plain", text: t("What had changed in {name} is not there any more.", { name }) });
  await lookAgain();
  return null;
}

/** A source with new art. */
async function reviewArt(work: Begun, id: SourceId, link: StoredLink, files: Files): Promise<Over> {
  const source = work.project.sources.find((each) => each.id === id);
  if (!source) return null;
  const match = matchFiles([source], [...files.keys()].filter(isArtFile), link.folder.name, link.chosen).matches.get(source.id);
  if (!match) return isGone(link);
  const art =
    match.from === "one"
      ? [files.get(match.path) as File]
      : await Promise.all(match.paths.map((path, k) => fileFor(source, k, path === null ? undefined : files.get(path))));
  const { reviewChangedArt } = await import("../changed-art/review");
  work.still();
  try {
    if (!(await reviewChangedArt(id, art))) return null;
  } catch (error) {
    sayTrouble(error);
    return [id];
  }
  await decide(work, link, files, pathsOf(match), [id]);
  return [id];
}

/**
 * Decided either way, they are not reported again until a file changes once more. What was decided has to be saved first: after a crash without
 * it the project is as before, and the folder has news.
 */
async function decide(
  work: Begun,
  { project }: StoredLink,
  files: Files,
  paths: readonly string[],
  ids: readonly SourceId[],
): Promise<void> {
  await saveNow();
  work.still();
  const stamps = paths.flatMap((path) => {
    const file = files.get(path);
    return file ? [[path, stampOf(file)] as const] : [];
  });
  const fresh = await storage.links.get(project);
  if (fresh && isSaved()) await storage.links.put({ ...fresh, ignored: { ...fresh.ignored, ...Object.fromEntries(stamps) } });
  const { linked } = useLinkedFolder.getState();
  if (linked?.project !== project) return;
  const changed = linked.changed.filter((id) => !ids.includes(id));
  const described = new Map([...linked.described].filter(([id]) => !ids.includes(id)));
  useLinkedFolder.setState({ linked: { ...linked, changed, described } });
}

/** A picture's file; pictures missing in the folder are kept as they are. */
async function fileFor(source: Source, k: number, file: File | undefined): Promise<File> {
  const count = source.pictures.length;
  const layer = source.layers?.[Math.floor(k / count) - 1];
  // Numbers say which still of a series it is, whatever its file is called; layers are identified by name.
  const number = source.pictures[k % count]?.number ?? k % count;
  const ending = file ? file.name.slice(stemOf(file.name).length) : ".png";
  const name = `${String(number).padStart(5, "0")}${layer ? `_${layer.name}` : ""}${ending}`;
  if (file) return count === 1 && !layer ? file : new File([file], name);
  const blob = await pictureBlob((allPictures(source)[k] ?? sheetOf(source)).sha256);
  return new File(blob ? [blob] : [], name);
}
