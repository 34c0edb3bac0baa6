/** The project lives in the game's repository: `caravan.json` and art in a folder, and changes that somebody else makes there. */
import { bundleFiles } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { addClip, renameClip } from "@caravan/core/edit";
import type { ClipName, FrameRef } from "@caravan/core/model";
import { violationsOn } from "./axe";
import { expect, type Page, test } from "./fixtures";
import {
  camp,
  changeThere,
  clips,
  clipsThere,
  comeBack,
  fileThere,
  inProjects,
  projectThere,
  put,
  rename,
  savedIn,
  withGameFolder,
} from "./game-folder";
import { clipOfRows, dropAndCut, figureSheet, goTo, makeWalk, openEmpty, png, saved } from "./studio";

test.beforeEach(({ page }) => withGameFolder(page));

test("a project is kept in a folder: every change is there a moment later, and unchanged files are not touched", async ({ page }) => {
  await makeWalk(page);
  await inProjects(page, "Keep this one in a folder");
  await savedIn(page);
  expect(await clipsThere(page)).toEqual(["walk"]);
  const file = (await projectThere(page)).sources[0]?.pictures[0]?.file as string;
  const art = await fileThere(page, file);
  expect(art).not.toBeNull();
  await rename(page, "stride");
  await expect.poll(() => clipsThere(page)).toEqual(["stride"]);
  await savedIn(page);
  expect(await fileThere(page, file)).toEqual(art);
  // A change that is followed at once by a reload is there afterwards, too.
  await rename(page, "march");
  await page.reload();
  await expect.poll(() => clipsThere(page)).toEqual(["march"]);
  await savedIn(page);
  await page.getByRole("button", { name: "All projects" }).click();
  const dialog = page.getByRole("dialog", { name: "Projects" });
  await expect(dialog).toContainText("kept in game");
  await dialog.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByTestId("saved")).toContainText("saved in this browser");
});

test("art stays where the game has it, and another project opened meanwhile gets nothing of the first", async ({ page }) => {
  const sheet = figureSheet(4, 2);
  await openEmpty(page);
  await put(page, "assets/people/walkers.png", png.encode(sheet));
  await put(page, "assets/other.png", png.encode(figureSheet(2, 2)));
  const art = await fileThere(page, "assets/people/walkers.png");
  await dropAndCut(page, "hero.png", sheet, 4, 2);
  await clipOfRows(page, 1, "walk");
  await inProjects(page, "Keep this one in a folder");
  await savedIn(page);
  expect((await projectThere(page)).sources[0]?.pictures[0]?.file).toBe("assets/people/walkers.png");
  expect(await fileThere(page, "assets/people/walkers.png")).toEqual(art);
  expect(await fileThere(page, "art/hero.png")).toBeNull();

  // Away at once, while the folder is still being written.
  await rename(page, "stride");
  await inProjects(page, "New project");
  await expect(page).toHaveTitle(/^New project 2/);
  await page.waitForTimeout(2000);
  expect((await projectThere(page)).name).not.toMatch(/^New project 2/);
  await expect(page.getByTestId("saved")).toContainText("saved in this browser");
  await inProjects(page, "Open a project's folder");
  await expect.poll(() => clipsThere(page)).toEqual(["stride"]);
});

test("a folder is opened, nothing in it is touched, and a colleague's change is reviewed and merged", async ({ page }) => {
  const { project, pictures } = camp(figureSheet(4, 2));
  await openEmpty(page);
  for (const { path, bytes } of bundleFiles({ project, pictures })) await put(page, path, bytes);
  const before = await fileThere(page, "caravan.json");
  await inProjects(page, "Open a project's folder");
  await expect(page).toHaveTitle(/^camp/);
  await goTo(page, "Clips");
  await expect(clips(page)).toContainText("walk");
  await savedIn(page);
  expect(await fileThere(page, "caravan.json")).toEqual(before);

  await changeThere(page, (each) => addClip(each, ["s1/c2r0", "s1/c3r0"] as FrameRef[], "jump"));
  await comeBack(page);
  await page.getByRole("button", { name: "See what changed" }).click();
  const review = page.getByRole("dialog", { name: "caravan.json in game was changed outside" });
  await expect(review.getByRole("region", { name: "In game", exact: true })).toContainText("clips: jump new");
  await expect(review.getByRole("region", { name: "Here, since then" })).toContainText("Nothing.");
  await review.getByRole("button", { name: "Use theirs" }).click();
  await expect(clips(page)).toContainText("jump");
  await savedIn(page);
  expect(await clipsThere(page)).toEqual(["walk", "jump"]);
  // One change, which undo takes back in the folder as well.
  await page.getByRole("button", { name: /^Undo: use the version in game/ }).click();
  await expect(clips(page)).not.toContainText("jump");
  await expect.poll(() => clipsThere(page)).toEqual(["walk"]);

  // The same folder again is the same project.
  await page.goto("/?new");
  await expect(page).toHaveTitle(/^New project/);
  await inProjects(page, "Open a project's folder");
  await expect(page).toHaveTitle(/^camp/);
});

test("changes of both sides merge, an unfinished merge is left alone, and nothing is overwritten without asking", async ({ page }) => {
  await makeWalk(page);
  await inProjects(page, "Keep this one in a folder");
  await savedIn(page);
  await changeThere(page, (each) => addClip(each, ["s1/c2r0"] as FrameRef[], "jump"));
  const theirs = await fileThere(page, "caravan.json");
  await rename(page, "stride");
  const banner = page.getByText("Someone else changed caravan.json in game. Nothing is overwritten");
  await expect(banner).toBeVisible({ timeout: 15_000 });
  await expect(page.getByTestId("saved")).toContainText("saved in this browser, not in game");
  expect(await fileThere(page, "caravan.json")).toEqual(theirs);
  await page.getByRole("button", { name: "See what changed" }).click();
  const review = page.getByRole("dialog", { name: "caravan.json in game was changed outside" });
  await expect(review.getByRole("region", { name: "Here, since then" })).toContainText("clips: walk → stride renamed");
  expect(await violationsOn(page, { part: "[role=dialog]" })).toEqual([]);
  await page.emulateMedia({ colorScheme: "dark" });
  expect(await violationsOn(page, { rules: ["color-contrast"] })).toEqual([]);
  await review.getByRole("button", { name: "Merge both" }).click();
  await expect(banner).toBeHidden();
  await savedIn(page);
  expect(await clipsThere(page)).toEqual(["stride", "jump"]);

  // A merge that somebody is in the middle of.
  const whole = (await fileThere(page, "caravan.json"))?.text ?? "";
  await put(page, "caravan.json", new TextEncoder().encode(`<<<<<<< HEAD\n${whole}`));
  await comeBack(page);
  await expect(page.getByText("cannot be read as it is now, so it is left alone")).toBeVisible();
  await rename(page, "march");
  await page.waitForTimeout(2000);
  expect((await fileThere(page, "caravan.json"))?.text).toContain("<<<<<<<");
  // Theirs as it was, plus another rename of the same clip: ours is kept only if the user says so.
  await put(page, "caravan.json", new TextEncoder().encode(whole));
  await changeThere(page, (each) => renameClip(each, "stride" as ClipName, "trot"));
  await page.getByRole("button", { name: "Look again" }).click();
  await page.getByRole("button", { name: "See what changed" }).click();
  await expect(review.getByRole("region", { name: "Conflicts" })).toContainText("march");
  await review.getByRole("button", { name: "Use theirs only" }).click();
  await savedIn(page);
  expect(await clipsThere(page)).toEqual(["trot", "jump"]);
  await expect(clips(page)).toContainText("trot");

  // Written over, theirs is one undo away.
  await changeThere(page, (each) => renameClip(each, "trot" as ClipName, "canter"));
  await comeBack(page);
  await page.getByRole("button", { name: "See what changed" }).click();
  await review.getByRole("button", { name: "Overwrite with mine" }).click();
  await expect.poll(() => clipsThere(page)).toEqual(["trot", "jump"]);
  await page.getByRole("button", { name: /^Undo: keep mine instead of what game has/ }).click();
  await expect.poll(() => clipsThere(page)).toEqual(["canter", "jump"]);

  // A sheet removed here, from which the other side has made a clip meanwhile, comes back with its picture, and the review says so.
  await savedIn(page);
  await changeThere(page, (each) => addClip(each, ["s1/c3r0"] as FrameRef[], "wave"));
  await goTo(page, "Sources");
  await page.getByRole("list", { name: "Sources" }).getByRole("button", { name: "hero" }).click();
  await page.getByRole("button", { name: "Remove", exact: true }).click();
  await expect(page.getByRole("list", { name: "Sources" })).toBeHidden();
  await page.getByRole("button", { name: "See what changed" }).click();
  await expect(review.getByRole("region", { name: "Conflicts" })).toContainText("the other needs it; it is kept");
  await review.getByRole("button", { name: "Merge both" }).click();
  await savedIn(page);
  expect(await clipsThere(page)).toContain("wave");
  await page.reload();
  await goTo(page, "Clips");
  await expect(clips(page)).toContainText("wave");
  const { sources, clips: merged } = await projectThere(page);
  expect(sources.map(({ name }) => name)).toEqual(["hero"]);
  expect(merged.map(({ name, steps }) => [name, steps.length])).toContainEqual(["wave", 1]);
});

test("art changed in the folder is reviewed and kept there; without permission nothing is written, and that is shown", async ({ page }) => {
  const sheet = figureSheet(4, 2);
  const { project, pictures } = camp(sheet);
  await openEmpty(page);
  for (const { path, bytes } of bundleFiles({ project, pictures })) await put(page, path, bytes);
  await inProjects(page, "Open a project's folder");
  await savedIn(page);
  const file = project.sources[0]?.pictures[0]?.file as string;
  const redrawn = { ...sheet, bytes: sheet.bytes.slice() };
  redrawn.bytes.set([250, 240, 10, 255], (20 * sheet.width + 15) * 4);
  await put(page, file, png.encode(redrawn));
  const drawn = await fileThere(page, file);
  await goTo(page, "Clips");
  await rename(page, "stride");
  await expect.poll(() => clipsThere(page)).toEqual(["stride"]);
  expect(await fileThere(page, file)).toEqual(drawn);
  await comeBack(page);
  await page.getByRole("button", { name: "See what changed" }).click();
  const review = page.getByRole("dialog", { name: "Changed art of hero" });
  await expect(review).toContainText("7 frames the same, 1 changed");
  await review.getByRole("button", { name: "Use new art" }).click();
  const sha256 = sha256Hex(png.encode(redrawn));
  await expect.poll(async () => (await projectThere(page)).sources[0]?.pictures[0]?.sha256).toBe(sha256);
  expect(await fileThere(page, file)).toEqual(drawn);

  // The browser asks again after a restart.
  await page.evaluate(() => {
    let granted = false;
    Object.assign(FileSystemHandle.prototype, {
      queryPermission: async () => (granted ? "granted" : "prompt"),
      requestPermission: async () => {
        granted = true;
        return "granted";
      },
    });
  });
  await rename(page, "march");
  await expect(page.getByText("The browser asks for permission to save into game again.")).toBeVisible();
  expect(await clipsThere(page)).toEqual(["stride"]);
  await page.getByRole("button", { name: "Allow" }).click();
  await expect.poll(() => clipsThere(page)).toEqual(["march"]);
  await savedIn(page);
});

test("a folder whose art is newer than its document is cut again with a notice; a missing document is reported, and written again on request", async ({
  page,
}) => {
  const { project, pictures } = camp(figureSheet(4, 2));
  await openEmpty(page);
  for (const { path, bytes } of bundleFiles({ project, pictures })) await put(page, path, bytes);
  // One more row, drawn while nobody had the project open: this browser never had the earlier art.
  const taller = png.encode(figureSheet(4, 3));
  await put(page, project.sources[0]?.pictures[0]?.file as string, taller);
  await inProjects(page, "Open a project's folder");
  await expect(page.getByText(/^hero: the art in game has changed .*cut again/)).toBeVisible();
  await expect.poll(async () => (await projectThere(page)).sources[0]?.pictures[0]?.sha256).toBe(sha256Hex(taller));
  expect((await projectThere(page)).sources[0]?.frames).toHaveLength(12);
  await savedIn(page);

  await page.evaluate(async () => (await (await navigator.storage.getDirectory()).getDirectoryHandle("game")).removeEntry("caravan.json"));
  await comeBack(page);
  await expect(page.getByText("caravan.json is no longer in game.")).toBeVisible();
  expect(await fileThere(page, "caravan.json")).toBeNull();
  await page.getByRole("button", { name: "Write it again" }).click();
  await savedIn(page);
  expect(await clipsThere(page)).toEqual(["walk"]);
});

/** Writing into the folder from now on: normal, never completing, or without space. */
async function writingIs(page: Page, how: "fine" | "hanging" | "full"): Promise<void> {
  await page.evaluate((wanted) => {
    const its = FileSystemWritableFileStream.prototype as FileSystemWritableFileStream & { real?: () => Promise<void> };
    its.real ??= its.close;
    its.close =
      wanted === "fine"
        ? its.real
        : wanted === "hanging"
          ? () => new Promise<void>(() => {})
          : async () => {
              throw new DOMException("There is no room.", "QuotaExceededError");
            };
  }, how);
}

test("a page killed while writing into the folder leaves nothing broken there, and continues when reopened", async ({ page }) => {
  await makeWalk(page);
  await writingIs(page, "hanging");
  // By its key, as from the finder.
  await page.keyboard.press("Control+Shift+S");
  const empty = () =>
    page
      .evaluate(async () => {
        const folder = await (await (await navigator.storage.getDirectory()).getDirectoryHandle("game")).getDirectoryHandle("art");
        const sizes: number[] = [];
        for await (const each of folder.values()) sizes.push((await (each as FileSystemFileHandle).getFile()).size);
        return sizes;
      })
      .catch(() => []);
  await expect.poll(empty).toEqual([0]);
  await page.reload();
  await savedIn(page);
  expect(await clipsThere(page)).toEqual(["walk"]);
  const art = (await projectThere(page)).sources[0]?.pictures[0];
  expect(await fileThere(page, art?.file as string)).not.toBeNull();
  expect(await empty()).not.toContain(0);

  // In the middle of the document: the one of before stays whole.
  await writingIs(page, "hanging");
  await rename(page, "stride");
  await expect(page.getByTestId("saved")).toContainText("saving into game");
  await page.waitForTimeout(1500);
  expect(await clipsThere(page)).toEqual(["walk"]);
  await page.reload();
  await expect.poll(() => clipsThere(page)).toEqual(["stride"]);
  await savedIn(page);
});

test("a full disk is reported, nothing is lost, and pending changes are written when there is space", async ({ page }) => {
  await makeWalk(page);
  await page.keyboard.press("Control+Shift+S");
  await savedIn(page);
  await writingIs(page, "full");
  await rename(page, "stride");
  await expect(page.getByTestId("saved")).toContainText("saved in this browser, not in game");
  await expect(page.getByText(/game.*There is no room/)).toBeVisible();
  expect(await clipsThere(page)).toEqual(["walk"]);
  await writingIs(page, "fine");
  await rename(page, "march");
  await expect.poll(() => clipsThere(page)).toEqual(["march"]);
  await savedIn(page);
});

test("of two tabs only the one that may change the project writes into the folder", async ({ page, context }) => {
  await makeWalk(page);
  await page.keyboard.press("Control+Shift+S");
  await savedIn(page);
  const second = await context.newPage();
  await second.goto("/");
  await second.getByRole("button", { name: "Work here instead" }).click();
  await expect(second.getByRole("button", { name: "Work here instead" })).toBeHidden();
  await goTo(second, "Clips");
  await rename(second, "stride");
  await expect(clips(second)).toContainText("stride");
  await savedIn(second);
  await expect.poll(() => clipsThere(page)).toEqual(["stride"]);
  const there = await fileThere(page, "caravan.json");
  // The first one sees it, and leaves the folder alone.
  await expect(clips(page)).toContainText("stride");
  await comeBack(page);
  await page.waitForTimeout(1500);
  expect(await fileThere(page, "caravan.json")).toEqual(there);
  await expect(page.getByText("Someone else changed")).toBeHidden();
});

test("what is edited while the folder is still being opened is written there too", async ({ page }) => {
  await makeWalk(page);
  await page.keyboard.press("Control+Shift+S");
  await savedIn(page);
  // A slow disk or a network drive: the question for permission takes seconds.
  await page.addInitScript(() => {
    let first = true;
    const queryPermission = async () => {
      if (first) await new Promise((done) => setTimeout(done, 3000));
      first = false;
      return "granted";
    };
    Object.assign(FileSystemHandle.prototype, { queryPermission });
    // Coming back to the window looks at the folder, too; here nobody has left it.
    addEventListener("focus", (event) => event.stopImmediatePropagation(), { capture: true });
  });
  await page.reload();
  await goTo(page, "Clips");
  await rename(page, "stride");
  await saved(page);
  await expect.poll(() => clipsThere(page)).toEqual(["stride"]);
  await savedIn(page);
});

test("folders that cannot be used are refused with a reason, and nothing is written", async ({ page }) => {
  await openEmpty(page);
  await inProjects(page, "Open a project's folder");
  await expect(page.getByText("There is no caravan.json in it.")).toBeVisible();
  const { project, pictures } = camp(figureSheet(4, 2));
  for (const { path, bytes } of bundleFiles({ project, pictures })) if (path === "caravan.json") await put(page, path, bytes);
  await inProjects(page, "Open a project's folder");
  await expect(page.getByText("hero.png is missing there and in this browser.")).toBeVisible();
  await inProjects(page, "Keep this one in a folder");
  await expect(page.getByText("There is a project in it already")).toBeVisible();
  await expect(page).toHaveTitle(/^New project/);
  expect(await clipsThere(page)).toEqual(["walk"]);
});
