import { at, bench, COLOURS, clickAt, colourAt, onTheBench, part, stack, twoSteps } from "./bench";
import { expect, test } from "./fixtures";
import { filesOf, goTo, saved } from "./studio";
import { crash, storageWithEnd } from "./trouble";

test("a tab killed in the middle of dragging a piece keeps everything placed before", async ({ context, page }) => {
  await onTheBench(page);
  await twoSteps(page);
  await page.waitForTimeout(1000);
  const from = await at(page, 12, 4);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 40, from.y + 40);
  await crash(context, page);
  const next = await context.newPage();
  await next.goto("/");
  await goTo(next, "Frames");
  await expect(bench(next)).toBeVisible();
  await expect(stack(next)).toHaveCount(2);
  await next.keyboard.press(".");
  await expect(next.getByText("parts figure/1 ·")).toBeVisible();
  await expect.poll(() => colourAt(next, 12, 4)).toEqual([...COLOURS[1], 255]);
});

test("a second tab sees pieces being placed, places none itself and says why, until it takes over", async ({ context, page }) => {
  await onTheBench(page);
  await twoSteps(page);
  await saved(page);
  const second = await context.newPage();
  await second.goto(page.url());
  await goTo(second, "Frames");
  await expect(stack(second)).toHaveCount(2);
  await second.keyboard.press(".");
  await part(second, 2).click();
  await clickAt(second, 12, 12);
  await expect(second.getByText("It is open in another tab, so it cannot be changed here.")).toBeVisible();
  await expect(stack(second)).toHaveCount(2);
  await part(page, 3).click();
  await clickAt(page, 12, 12);
  await expect(stack(page)).toHaveCount(3);
  await expect(stack(second)).toHaveCount(3);
  await second.getByRole("button", { name: "Work here instead" }).click();
  await expect(second.getByRole("button", { name: "Work here instead" })).toBeHidden();
  // The piece in hand is still there.
  await clickAt(second, 12, 12);
  await expect(stack(second)).toHaveCount(4);
  await expect(stack(page)).toHaveCount(4);
});

test("with storage full, pieces can still be placed, the bench says so, and a file has all of them", async ({ page }) => {
  const room = await storageWithEnd(page);
  await onTheBench(page);
  await twoSteps(page);
  await saved(page);
  await room.fills();
  await part(page, 2).click();
  await clickAt(page, 12, 12);
  await expect(page.getByText("This browser has no more room for the project.")).toBeVisible();
  await expect(stack(page)).toHaveCount(3);
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save to a file" }).click()]);
  const document = JSON.parse(new TextDecoder().decode((await filesOf(download)).get("caravan.json")));
  expect(document.sources[1].frames[1].pieces).toHaveLength(3);
  await room.empties();
  await page.getByRole("button", { name: "Try again" }).click();
  await saved(page);
  await page.reload();
  await goTo(page, "Frames");
  await page.keyboard.press(".");
  await expect(stack(page)).toHaveCount(3);
});

test("a drag ends without effect when the frame changes meanwhile, and moves the piece that was taken", async ({ page }) => {
  await onTheBench(page);
  await part(page, 0).click();
  await clickAt(page, 4, 4);
  await part(page, 1).click();
  await clickAt(page, 12, 4);
  await page.keyboard.press("Escape");
  await clickAt(page, 12, 4);
  await page.keyboard.press("PageDown");
  await expect(page.getByRole("button", { name: "Undo: lower 1 piece of parts figure/0" })).toBeVisible();
  // The blue one is lowest now. While it is held, its lowering is undone: it is another place of the list.
  const from = await at(page, 12, 4);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x, from.y + (await at(page, 12, 12)).y - from.y);
  await page.keyboard.press("Control+z");
  await page.mouse.move(from.x, from.y + (await at(page, 12, 12)).y - from.y - 1);
  await page.mouse.up();
  await expect.poll(() => colourAt(page, 4, 4)).toEqual([...COLOURS[0], 255]);
  await expect(page.getByRole("button", { name: "Undo: place parts/1 on parts figure/0" })).toBeVisible();
  await expect.poll(() => colourAt(page, 12, 4)).toEqual([...COLOURS[1], 255]);
});
