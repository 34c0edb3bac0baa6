/** What changed in a linked folder counts as decided on only once that is kept. */
import { expect, type Page, test } from "./fixtures";
import { dropFiles, figureSheet, goTo, openEmpty, pngFile, saved, type UploadedFile } from "./studio";
import { crash, storageWithEnd } from "./trouble";

const SHEET = figureSheet(4, 2);

/** The sheet with one figure drawn anew. */
function redrawn(shade: number) {
  const sheet = { ...SHEET, bytes: SHEET.bytes.slice() };
  sheet.bytes.set([shade, 240, 10, 255], (20 * sheet.width + 15) * 4);
  return sheet;
}

const writeArt = (page: Page, sheet: typeof SHEET) => write(page, pngFile("hero.png", sheet));

/** Puts a file into the browser's private file system, which stands in for a folder on the computer. */
async function write(page: Page, { name, bytes }: UploadedFile): Promise<void> {
  await page.evaluate(
    async ({ name, base64 }) => {
      const root = await navigator.storage.getDirectory();
      const folder = await root.getDirectoryHandle("art", { create: true });
      const stream = await (await folder.getFileHandle(name, { create: true })).createWritable();
      await stream.write(Uint8Array.from(atob(base64), (each) => each.charCodeAt(0)));
      await stream.close();
    },
    { name, base64: Buffer.from(bytes).toString("base64") },
  );
}

const comeBack = (page: Page) => page.evaluate(() => window.dispatchEvent(new Event("focus")));
const line = (page: Page) => page.getByRole("region", { name: "Linked folder" });
const changedArt = (page: Page) => page.getByRole("dialog", { name: "Changed art of hero" });

const withFolder = (page: Page) =>
  page.addInitScript(() => {
    const folder = async () => (await navigator.storage.getDirectory()).getDirectoryHandle("art", { create: true });
    Object.assign(window, { showDirectoryPicker: folder });
  });

/** A project with one sheet that is in the linked folder. */
async function linked(page: Page): Promise<void> {
  await withFolder(page);
  await openEmpty(page);
  await writeArt(page, SHEET);
  await dropFiles(page, [pngFile("hero.png", SHEET)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await goTo(page, "Sources");
  await page.getByRole("button", { name: "Link a folder" }).click();
  await expect(line(page)).toContainText("1 of 1 sources have their art in it, none changed.");
  await saved(page);
}

async function seeChanged(page: Page, clicks = 1): Promise<void> {
  await comeBack(page);
  await expect(line(page)).toContainText("1 changed.");
  await line(page).getByRole("button", { name: "See what changed" }).click({ clickCount: clicks });
  await expect(changedArt(page)).toContainText("Changed art of hero");
}

test("art that was accepted and could not be saved is news again after a crash", async ({ context, page }) => {
  const room = await storageWithEnd(page, { but: "links" });
  await linked(page);
  await writeArt(page, redrawn(250));
  await seeChanged(page);
  await room.fills();
  await changedArt(page)
    .getByRole("button", { name: /Use new art/ })
    .click();
  await expect(page.getByText("This browser has no more room for the project.")).toBeVisible();
  const address = page.url();
  await crash(context, page);
  const after = await context.newPage();
  await after.goto(address);
  await expect(after.getByText("Art changed in art: hero.")).toBeVisible();
});

test("art that was refused, in the one review of a double click, stays refused after a reload", async ({ page }) => {
  await linked(page);
  await writeArt(page, redrawn(250));
  await seeChanged(page, 2);
  await changedArt(page).getByRole("button", { name: "Keep old art" }).click();
  await expect(line(page)).toContainText("none changed.");
  await goTo(page, "Frames");
  await expect(changedArt(page)).toHaveCount(0);
  await goTo(page, "Sources");
  await page.reload();
  await goTo(page, "Sources");
  await expect(line(page)).toContainText("none changed.");
});

test("undo does not reach behind the review", async ({ page }) => {
  await linked(page);
  await writeArt(page, redrawn(250));
  await seeChanged(page);
  await page.keyboard.press("Control+z");
  await expect(changedArt(page)).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("list", { name: "Pictures" }).getByText("hero")).toBeVisible();
});

test("art that a second tab may not use is still news", async ({ context, page }) => {
  await linked(page);
  const second = await context.newPage();
  await withFolder(second);
  await second.goto(page.url());
  await expect(second.getByText("open in another tab. Here you can look")).toBeVisible();
  await writeArt(second, redrawn(250));
  await goTo(second, "Sources");
  await seeChanged(second);
  await changedArt(second)
    .getByRole("button", { name: /Use new art/ })
    .click();
  await expect(second.getByText("It is open in another tab, so it cannot be changed here.")).toBeVisible();
  await expect(changedArt(second)).toBeHidden();
  await comeBack(second);
  await expect(line(second)).toContainText("1 changed.");
  await comeBack(page);
  await expect(line(page)).toContainText("1 changed.");
});

test("art that went away before it was looked at is said to be gone", async ({ page }) => {
  await linked(page);
  await writeArt(page, redrawn(250));
  await comeBack(page);
  await expect(line(page)).toContainText("1 changed.");
  await page.evaluate(async () => {
    const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle("art");
    await folder.removeEntry("hero.png");
  });
  await line(page).getByRole("button", { name: "See what changed" }).click();
  await expect(page.getByText("What had changed in art is not there any more.")).toBeVisible();
  await expect(line(page)).toContainText("0 of 1 sources have their art in it");
});

/** What version control leaves in place of large files that were not fetched. */
const pointer = (name: string): UploadedFile => ({
  name,
  bytes: new TextEncoder().encode(`version https://example.com/spec/v1\noid sha256:${"5e".repeat(32)}\nsize 4711\n`),
});

/** Two sheets and one with metadata, all in the linked folder. */
async function threeLinked(page: Page): Promise<void> {
  await withFolder(page);
  await openEmpty(page);
  const figures = [0, 1, 2, 3].map((k) => ({ name: `figure ${k}`, x: k * 32, y: 0, w: 32, h: 40 }));
  const files = [
    pngFile("ama.png", figureSheet(4, 3)),
    { name: "ama.json", bytes: new TextEncoder().encode(JSON.stringify({ figures })) },
    pngFile("bek.png", figureSheet(3, 2)),
    pngFile("hero.png", SHEET),
  ];
  for (const file of files) await write(page, file);
  await dropFiles(page, files);
  await page.getByRole("dialog").getByRole("button", { name: "Import" }).click();
  await goTo(page, "Sources");
  await page.getByRole("button", { name: "Link a folder" }).click();
  await expect(line(page)).toContainText("3 of 3 sources have their art in it, none changed.");
  await saved(page);
}

test("files that are at fault do not keep the art of others from being seen", async ({ page }) => {
  await threeLinked(page);
  // As after a checkout without large files, but for one sheet.
  await write(page, pointer("ama.json"));
  await write(page, pointer("ama.png"));
  await write(page, pointer("bek.png"));
  await writeArt(page, redrawn(250));
  await comeBack(page);
  await expect(line(page)).toContainText("3 changed.");
  await line(page).getByRole("button", { name: "See what changed" }).click();
  await expect(changedArt(page)).toBeVisible();
  await changedArt(page)
    .getByRole("button", { name: /Use new art/ })
    .click();
  // They are still news, and nothing of them was taken for the art.
  await comeBack(page);
  await expect(line(page)).toContainText("2 changed.");
  await expect(page.getByRole("alert", { name: "Files that were not imported" })).toContainText("ama.json: This is only a pointer");
  // Fetched, they are as before.
  await write(page, pngFile("bek.png", figureSheet(3, 2)));
  await comeBack(page);
  await expect(line(page)).toContainText("1 changed.");
});

test("a file that another program keeps for itself does not keep others from being followed", async ({ page }) => {
  await page.addInitScript(() => {
    const { getFile } = FileSystemFileHandle.prototype;
    FileSystemFileHandle.prototype.getFile = async function (this: FileSystemFileHandle) {
      const file = await getFile.call(this);
      const isKept = /^ama/.test(file.name) && sessionStorage.getItem("kept") !== null;
      const refuse = () => Promise.reject(new DOMException("The requested file could not be read.", "NotReadableError"));
      return isKept ? Object.assign(file, { arrayBuffer: refuse, text: refuse }) : file;
    };
  });
  await threeLinked(page);
  await page.evaluate(() => sessionStorage.setItem("kept", "yes"));
  await write(page, pngFile("ama.png", figureSheet(4, 3, { w: 32, h: 40 }, [5])));
  await write(page, pointer("ama.json"));
  await writeArt(page, redrawn(250));
  await comeBack(page);
  await expect(line(page)).toContainText("1 changed.");
  await expect(page.getByText("could not be read")).toBeHidden();
  await page.evaluate(() => sessionStorage.removeItem("kept"));
  await comeBack(page);
  await expect(line(page)).toContainText("2 changed.");
});
