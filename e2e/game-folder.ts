/** A folder of a game for specs: what is in it, what others do there, and a project that is kept there. */
import { readProjectFile, writeProjectFile } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { addClip, addSources, cutSource } from "@caravan/core/edit";
import { emptyProject, type FrameRef, type Project, type SourceId } from "@caravan/core/model";
import { coverageOf, type Pixels } from "@caravan/core/raster";
import { expect, type Page } from "./fixtures";
import { png } from "./studio";

/** The private file system stands in for a folder on the computer that a person would choose. */
export async function withGameFolder(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const folder = async () => (await navigator.storage.getDirectory()).getDirectoryHandle("game", { create: true });
    Object.assign(window, { showDirectoryPicker: folder });
  });
}

interface There {
  readonly text: string;
  readonly at: number;
}

/** A file in the folder, null if there is none. */
export function fileThere(page: Page, path: string): Promise<There | null> {
  return page.evaluate(async (wanted) => {
    let folder = await (await navigator.storage.getDirectory()).getDirectoryHandle("game", { create: true });
    const parts = wanted.split("/");
    try {
      for (const part of parts.slice(0, -1)) folder = await folder.getDirectoryHandle(part);
      const file = await (await folder.getFileHandle(parts.at(-1) as string)).getFile();
      return { text: await file.text(), at: file.lastModified };
    } catch {
      return null;
    }
  }, path);
}

export async function put(page: Page, path: string, bytes: Uint8Array): Promise<void> {
  await page.evaluate(
    async ({ wanted, base64 }) => {
      let folder = await (await navigator.storage.getDirectory()).getDirectoryHandle("game", { create: true });
      const parts = wanted.split("/");
      for (const part of parts.slice(0, -1)) folder = await folder.getDirectoryHandle(part, { create: true });
      const stream = await (await folder.getFileHandle(parts.at(-1) as string, { create: true })).createWritable();
      await stream.write(Uint8Array.from(atob(base64), (each) => each.charCodeAt(0)));
      await stream.close();
    },
    { wanted: path, base64: Buffer.from(bytes).toString("base64") },
  );
}

/** Waits while the browser puts a new file in the place of the old one: on its private file system that takes a moment. */
export async function projectThere(page: Page, there: There | null = null): Promise<Project> {
  let found = there;
  await expect.poll(async () => (found ??= await fileThere(page, "caravan.json"))).not.toBeNull();
  return readProjectFile(new TextEncoder().encode(found?.text), "caravan.json");
}

/** None while the file is being replaced. */
export const clipsThere = async (page: Page) => {
  const there = await fileThere(page, "caravan.json");
  return there ? (await projectThere(page, there)).clips.map(({ name }) => name) : [];
};

/** Like a colleague's change arriving. */
export async function changeThere(page: Page, change: (project: Project) => Project): Promise<void> {
  await put(page, "caravan.json", writeProjectFile(change(await projectThere(page))));
}

export const comeBack = (page: Page) => page.evaluate(() => window.dispatchEvent(new Event("focus")));
export const savedIn = (page: Page) => expect(page.getByTestId("saved")).toContainText("saved in game", { timeout: 15_000 });
export const clips = (page: Page) => page.getByRole("list", { name: "Clips" });

export async function inProjects(page: Page, button: string): Promise<void> {
  await page.getByRole("button", { name: "All projects" }).click();
  await page.getByRole("dialog", { name: "Projects" }).getByRole("button", { name: button }).click();
}

export async function rename(page: Page, name: string): Promise<void> {
  await page.getByRole("textbox", { name: "Clip name" }).fill(name);
  await page.keyboard.press("Enter");
}

/** A project as a repository has it. */
export function camp(sheet: Pixels): { project: Project; pictures: Map<string, Uint8Array> } {
  const bytes = png.encode(sheet);
  const sha256 = sha256Hex(bytes);
  const none = { x: 0, y: 0 };
  let project = addSources(emptyProject("camp"), [{ fileName: "art/hero.png", sha256, width: sheet.width, height: sheet.height }]);
  project = cutSource(
    project,
    "s1" as SourceId,
    { by: "cell", cell: { w: 32, h: 40 }, margin: none, gap: none, keepEmpty: false },
    coverageOf(sheet),
  );
  return { project: addClip(project, ["s1/c0r0", "s1/c1r0"] as FrameRef[], "walk"), pictures: new Map([[sha256, bytes]]) };
}
