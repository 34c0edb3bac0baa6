/**
 * Opens projects in folder form, `caravan.json` and art, that were dropped as a folder or a ZIP: the way for browsers that open no folders
 * themselves.
 */
import { PROJECT_FILE, readProjectFile } from "@caravan/core/bundle";
import { utf8 } from "@caravan/core/codec";
import { withDistinctPaths } from "@caravan/core/model";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";
import { artOf } from "../home/art-folder";
import { withArtFrom } from "../home/art-from";
import { sayRedrawn } from "../home/home";
import { sayFollowed } from "../home/renamed-art";
import { createWithArt, openProject } from "../projects";
import type { HandedFile } from "./collect";
import { asCaravanError, noteFailed } from "./read-files";

/** Returns what does not belong to any of them. A folder belongs to the document next above it. */
export async function openProjectFolders(files: readonly HandedFile[]): Promise<readonly HandedFile[]> {
  const documents = new Map<string, { file: File; text: string }>();
  for (const { file, path } of files) {
    if (file.name !== PROJECT_FILE) continue;
    const text = await file.text();
    // Another program may call a file so, too.
    if (text.includes('"caravan-project"')) documents.set(folderOf(path), { file, text });
  }
  if (documents.size === 0) return files;
  const contents = new Map([...documents.keys()].map((folder) => [folder, new Map<string, File>()]));
  const rest: HandedFile[] = [];
  for (const each of files) {
    const folder = foldersAbove(each.path).find((above) => documents.has(above));
    if (folder === undefined) rest.push(each);
    else contents.get(folder)?.set(each.path.slice(folder.length), each.file);
  }
  for (const [folder, { file, text }] of documents)
    await open(folder.split("/").at(-2) ?? PROJECT_FILE, text, contents.get(folder) ?? new Map()).catch((error: unknown) =>
      noteFailed([{ file, error: asCaravanError(error, file.name) }]),
    );
  return rest;
}

async function open(name: string, text: string, files: ReadonlyMap<string, File>): Promise<void> {
  const document = withDistinctPaths(readProjectFile(utf8(text), `${name}, ${PROJECT_FILE}`));
  const { project, redrawn, followed } = await withArtFrom(artOf(name, files), document);
  if (!(await openProject(await createWithArt(project)))) return;
  say({ tone: "good", text: t("Opened {name} as a project of its own.", { name }) });
  sayRedrawn(redrawn, name);
  sayFollowed(followed, name);
}

/** With `/` at its end; "" for none. */
function folderOf(path: string): string {
  return path.slice(0, path.lastIndexOf("/") + 1);
}

/** The folders that a file is in, the innermost first. */
function foldersAbove(path: string): string[] {
  const found: string[] = [];
  for (let folder = folderOf(path); ; folder = folderOf(folder.slice(0, -1))) {
    found.push(folder);
    if (folder === "") return found;
  }
}
