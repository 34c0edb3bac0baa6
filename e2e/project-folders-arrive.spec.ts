/** Projects in folders whose art was renamed, or that are dropped onto the page. */
import { bundleFiles, writeProjectFile } from "@caravan/core/bundle";
import { writeZip } from "@caravan/core/codec";
import { expect, test } from "./fixtures";
import { camp, clips, comeBack, fileThere, inProjects, projectThere, put, savedIn, withGameFolder } from "./game-folder";
import { clipOfRows, dropAndCut, dropFiles, figureSheet, goTo, openEmpty, png } from "./studio";

test.beforeEach(({ page }) => withGameFolder(page));

test("art renamed in the folder is followed, also by undo; art that is only gone is written again", async ({ page }) => {
  const sheet = figureSheet(4, 2);
  await openEmpty(page);
  await dropAndCut(page, "hero.png", sheet, 4, 2);
  await clipOfRows(page, 1, "walk");
  await inProjects(page, "Keep this one in a folder");
  await savedIn(page);
  const bytes = png.encode(sheet);
  const removed = (path: string) =>
    page.evaluate(async (wanted) => {
      const game = await (await navigator.storage.getDirectory()).getDirectoryHandle("game");
      const [folder, name] = wanted.split("/") as [string, string];
      await (await game.getDirectoryHandle(folder)).removeEntry(name);
    }, path);
  const fileIn = async () => (await projectThere(page)).sources[0]?.pictures[0]?.file;
  const there = async (path: string) => (await fileThere(page, path)) !== null;

  await put(page, "people/walker.png", bytes);
  await removed("art/hero.png");
  await comeBack(page);
  await expect(page.getByText("Art was renamed in game, and the project follows it: art/hero.png → people/walker.png.")).toBeVisible();
  await expect.poll(fileIn).toBe("people/walker.png");
  await savedIn(page);
  expect(await there("art/hero.png")).toBe(false);

  await page.keyboard.press("Control+z");
  await expect.poll(fileIn).toBe("art/hero.png");
  await savedIn(page);
  expect(await there("art/hero.png")).toBe(true);
  expect(await there("people/walker.png")).toBe(true);
  await page.keyboard.press("Control+Shift+z");
  await expect.poll(fileIn).toBe("people/walker.png");
  await savedIn(page);

  await removed("art/hero.png");
  await removed("people/walker.png");
  await comeBack(page);
  await expect.poll(() => there("people/walker.png")).toBe(true);
  expect(await fileIn()).toBe("people/walker.png");
});

test("a folder whose art was renamed since its document was written opens, and says what it follows", async ({ page }) => {
  const { project, pictures } = camp(figureSheet(4, 2));
  await openEmpty(page);
  // This browser has never seen the art, and another picture is there as well.
  for (const { path, bytes } of bundleFiles({ project, pictures }))
    await put(page, path === "caravan.json" ? path : "people/the walker.png", bytes);
  await put(page, "people/other.png", png.encode(figureSheet(2, 2)));
  await inProjects(page, "Open a project's folder");
  await expect(
    page.getByText(/Art was renamed in game, and the project follows it: .*hero\.png → people\/the walker\.png\./),
  ).toBeVisible();
  await expect.poll(async () => (await projectThere(page)).sources[0]?.pictures[0]?.file).toBe("people/the walker.png");
  await goTo(page, "Clips");
  await expect(clips(page).getByRole("button", { name: /walk/ })).toBeVisible();
  await savedIn(page);
});

test("a project's folder can be dropped, as a ZIP or as its files, and becomes a project of its own", async ({ page }) => {
  const { project, pictures } = camp(figureSheet(4, 2));
  const files = bundleFiles({ project, pictures }).map(({ path, bytes }) => ({ path: `game/camp/${path}`, bytes }));
  const other = { path: "game/camp/notes/other.png", bytes: png.encode(figureSheet(2, 2)) };
  await openEmpty(page);
  await dropFiles(page, [{ name: "whole.zip", bytes: writeZip([...files, other]) }]);
  await expect(page.getByText("Opened camp as a project of its own.")).toBeVisible();
  await expect(page).toHaveTitle(/^camp/);
  // What else is in its folder is not art of the project.
  await goTo(page, "Sources");
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("button")).toHaveCount(1);
  await goTo(page, "Clips");
  await expect(clips(page).getByRole("button", { name: /walk/ })).toBeVisible();

  // Its two files without their folders; and a document whose art is missing says which.
  await dropFiles(
    page,
    files.map(({ path, bytes }) => ({ name: path.split("/").at(-1) as string, bytes })),
  );
  await expect(page.getByText(/the project follows it: .*hero\.png/)).toBeVisible();
  await goTo(page, "Clips");
  await expect(clips(page).getByRole("button", { name: /walk/ })).toBeVisible();
  // This browser has the art of the document, but the one that came with it is newer.
  const newer = files.map(({ path, bytes }) => ({ path, bytes: path.endsWith(".png") ? png.encode(figureSheet(4, 3)) : bytes }));
  await dropFiles(page, [{ name: "newer.zip", bytes: writeZip(newer) }]);
  await expect(page.getByText(/^hero: the art in camp has changed .*cut again/)).toBeVisible();
  await goTo(page, "Frames");
  await expect(page.getByText("Tray · 12 frames")).toBeVisible();
  const lacking = {
    ...project,
    sources: project.sources.map((source) => ({
      ...source,
      pictures: source.pictures.map((each) => ({ ...each, sha256: "0".repeat(64) })),
    })),
  };
  await dropFiles(page, [{ name: "caravan.json", bytes: writeProjectFile(lacking) }]);
  await expect(page.getByText(/hero\.png is missing there and in this browser/).first()).toBeVisible();
});
