/** Looks into the folder that a project's art comes from. Nothing is ever written there. */

import { followFiles } from "@caravan/core/edit";
import { isArtFile } from "@caravan/core/intake";
import { artStem, pathKey, type Source, type SourceId, stemOf } from "@caravan/core/model";
import { sayTrouble } from "../../ui/notices";
import { act } from "../act";
import { freshId } from "../fresh-id";
import { currentProject, useOpenProject } from "../open-project";
import { pictureBlob } from "../picture-files";
import { type StoredLink, storage } from "../storage";
import { hasChanged, hashOf, type Known, saysOther, stampOf } from "./compare";
import { artFilesIn, canLinkFolders, chosenFolder, mayUse } from "./folder";
import { filesOf, handedFrom } from "./folder-art";
import { type LinkedFolder, useLinkedFolder } from "./linked";
import { drawnBeside, type Matches, metadataOf, pathsOf } from "./match";
import { type HashedFile, missingFrom, renamedFiles, withNameOf } from "./renamed";
import { matchedByContent, remember, withOthersBeside } from "./unclear";

/** Lets the person choose the folder, and looks at it. */
export async function linkFolder(): Promise<void> {
  const project = useOpenProject.getState().id;
  try {
    const folder = canLinkFolders() ? await chosenFolder("art") : null;
    if (!folder || project === null) return;
    await storage.links.put({ project, folder, mark: freshId(), ignored: {} });
    await lookAgain();
  } catch (error) {
    sayTrouble(error);
  }
}

export async function unlinkFolder(): Promise<void> {
  const { linked } = useLinkedFolder.getState();
  if (linked) await storage.links.delete(linked.project);
  useLinkedFolder.setState({ linked: null });
}

let looking: Promise<void> | null = null;

/** Checks the open project's folder, if it has one. With `ask`, which needs a click, the browser may ask for permission. */
export async function lookAgain(ask = false): Promise<void> {
  await looking;
  looking = look(ask).catch(sayTrouble);
  await looking;
  looking = null;
}

async function look(ask: boolean): Promise<void> {
  const { id } = useOpenProject.getState();
  const link = id === null ? undefined : await storage.links.get(id);
  if (!link) {
    useLinkedFolder.setState({ linked: null });
    return;
  }
  const { project, folder, home = false } = link;
  const named = { project, name: folder.name, home };
  if (!(await mayUse(folder, "read", ask))) {
    useLinkedFolder.setState({ linked: { ...named, locked: true, ...NOTHING } });
    return;
  }
  const { sources } = currentProject();
  const found = await foundIn(link, sources);
  if (useOpenProject.getState().id !== id) return;
  useLinkedFolder.setState({ linked: { ...named, locked: false, ...found } });
}

type Found = Omit<LinkedFolder, "project" | "name" | "home" | "locked">;

const NOTHING: Found = { matched: 0, unclear: new Map(), changed: [], described: new Map(), fresh: [], texts: [], renamed: new Map() };

async function foundIn(link: StoredLink, sources: readonly Source[]): Promise<Found> {
  const { project, folder, ignored, mark = "", home = false } = link;
  const files = await filesOf(link, sources);
  const art = [...files].filter(([path]) => isArtFile(path));
  const written = [...files.keys()].filter((path) => !isArtFile(path));
  const paths = art.map(([path]) => path);
  // Content known at the last save is not news, whatever the project has become since.
  const left = home ? ((await storage.homes.get(project))?.art ?? {}) : {};
  const known: Known = { files, ignored, left, link: `${project} ${mark}` };
  const { matches, unclear } = await matchedByContent(sources, new Map(art), link, known.link);
  const described = new Map<SourceId, string>();
  const changed: SourceId[] = [];
  for (const source of sources) {
    const match = matches.get(source.id);
    const metadata = metadataOf(source, written, match ? pathsOf(match) : []);
    if (metadata !== null && (await saysOther(source, metadata, known))) described.set(source.id, metadata);
    if (described.has(source.id) || (match && (await hasChanged(source, match, known)))) changed.push(source.id);
  }
  const taken = new Set([...[...matches.values()].flatMap(pathsOf), ...[...unclear.values()].flat()]);
  const beside = drawnBeside(sources, paths, folder.name);
  const others = home ? [] : art.filter(([path]) => !taken.has(path) && !beside.has(path));
  const renamed = await renamedIn(sources, matches, others, known.link);
  const followed = new Set(renamed.values());
  const fresh = others.filter(([path, file]) => !followed.has(path) && ignored[path] !== stampOf(file));
  const stems = new Set(fresh.map(([path]) => pathKey(stemOf(path))));
  const texts = written.filter((path) => stems.has(pathKey(stemOf(path)))).map((path) => [path, files.get(path) as File] as const);
  return {
    ...{ matched: matches.size, unclear, changed, described, renamed },
    ...{ fresh: fresh.map((each) => handedFrom(folder, each)), texts: texts.map((each) => handedFrom(folder, each)) },
  };
}

/** Sizes of stored pictures, by hash: nothing else can be under one, and thousands of them would take a while each time. */
const storedSizes = new Map<string, number>();

/** Pictures whose files are gone from the folder but have the same content as one of the `others` there. Only files of their sizes are read. */
async function renamedIn(
  sources: readonly Source[],
  matches: Matches,
  others: readonly (readonly [path: string, file: File])[],
  link: string,
): Promise<Map<string, string>> {
  const missing = others.length === 0 ? [] : missingFrom(sources, matches);
  const sizes = new Set<number>();
  for (const { sha256 } of missing) {
    const size = storedSizes.get(sha256) ?? (await pictureBlob(sha256))?.size;
    if (size === undefined) continue;
    storedSizes.set(sha256, size);
    sizes.add(size);
  }
  const found: HashedFile[] = [];
  for (const [path, file] of others) {
    const sha256 = sizes.has(file.size) ? await hashOf(file, path, link) : null;
    if (sha256 !== null) found.push({ path, sha256 });
  }
  return renamedFiles(missing, found);
}

/** Gives the pictures of renamed files the names that these have now. */
export function followRenamed(): void {
  const { linked } = useLinkedFolder.getState();
  if (!linked || useOpenProject.getState().id !== linked.project) return;
  act(followFiles, new Map([...linked.renamed].map(([file, path]) => [file, withNameOf(file, path)])));
}

/** Takes the file that a person says is the source's, of those that fit; with null none of them. The folder is looked at again. */
export async function chooseFile(source: Source, path: string | null): Promise<void> {
  const { linked } = useLinkedFolder.getState();
  if (!linked) return;
  const paths = path === null ? [] : withOthersBeside(path, linked.unclear.get(source.id) ?? []);
  await remember(linked.project, { [artStem(source)]: paths });
  await lookAgain();
}

/** Leaves the new pictures be, until they change. */
export async function leaveFresh(): Promise<void> {
  const { linked } = useLinkedFolder.getState();
  const link = linked && (await storage.links.get(linked.project));
  if (!linked || !link) return;
  for (const [path, file] of await artFilesIn(link.folder))
    if (linked.fresh.some((each) => each.path === `${link.folder.name}/${path}`)) link.ignored[path] = stampOf(file);
  await storage.links.put(link);
  useLinkedFolder.setState({ linked: { ...linked, fresh: [], texts: [] } });
}
