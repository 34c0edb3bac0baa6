import { expect, type Page, test } from "./fixtures";
import { clipOfRows, dropAndCut, figureSheet, goTo, openEmpty, openStudio } from "./studio";

const clips = (page: Page) => page.getByRole("list", { name: "Clips" }).locator("[data-row]");
const row = (page: Page, name: string) => clips(page).filter({ hasText: name });
const steps = (page: Page) => page.getByRole("button", { name: /^Step \d+:/ });

/** A clip for each of four rows: go0 to go3. */
async function fourClips(page: Page): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 4), 4, 4);
  for (let k = 0; k < 4; k++) {
    await goTo(page, "Frames");
    if (k > 0) await page.getByRole("button", { name: "Pick row 0", exact: true }).click();
    if (k === 0) await clipOfRows(page, 1, "go0");
    else {
      await page.keyboard.press("c");
      await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
      await page.keyboard.type(`go${k}`);
      await page.keyboard.press("Enter");
    }
  }
  await expect(clips(page)).toHaveCount(4);
}

test("several clips get one speed, and are renamed, moved and removed together, each as one undo step", async ({ page }) => {
  await fourClips(page);
  await row(page, "go0").click();
  await row(page, "go2").click({ modifiers: ["Shift"] });
  await expect(page.getByRole("heading", { name: "3 clips selected" })).toBeVisible();
  await row(page, "go1").click({ modifiers: ["Control"] });
  await expect(page.getByRole("heading", { name: "2 clips selected" })).toBeVisible();

  const speed = page.getByRole("textbox", { name: "Frames per second of the selected clips" });
  await speed.fill("5");
  await speed.press("Enter");
  await expect(clips(page)).toHaveText([/go0.*0.80 s/, /go1.*0.40 s/, /go2.*0.80 s/, /go3.*0.40 s/]);
  await page.getByRole("radiogroup", { name: "Looping of the selected clips" }).getByRole("radio", { name: "Once" }).click();
  await expect(clips(page)).toHaveText([/go0.*once/, /go1/, /go2.*once/, /go3/]);

  const pattern = page.getByRole("textbox", { name: "Pattern for the names of the selected clips" });
  await pattern.fill("hero-{name}");
  await pattern.press("Enter");
  await expect(clips(page)).toHaveText([/hero-go0/, /^go1/, /hero-go2/, /^go3/]);
  await expect(page.getByRole("heading", { name: "2 clips selected" })).toBeVisible();
  await page.getByRole("button", { name: "Move down" }).click();
  await expect(clips(page)).toHaveText([/^go1/, /hero-go0/, /^go3/, /hero-go2/]);
  await page.getByRole("button", { name: "Remove 2" }).click();
  await expect(clips(page)).toHaveText([/^go1/, /^go3/]);

  await row(page, "go1").focus();
  for (let k = 0; k < 5; k++) await page.keyboard.press("Control+z");
  await expect(clips(page)).toHaveText([/go0.*0.40 s$/, /go1.*0.40 s$/, /go2.*0.40 s$/, /go3.*0.40 s$/]);
});

test("durations are typed as a list, a split cuts before the selected step, and a copy waits for its name", async ({ page }) => {
  await fourClips(page);
  await row(page, "go0").click();
  await steps(page).first().click();
  await page.keyboard.press("Control+a");
  const list = page.getByRole("textbox", { name: "Durations one by one, in milliseconds" });
  await expect(list).toHaveValue("100 100 100 100");
  await list.fill("150 150 400");
  await list.press("Enter");
  await expect(steps(page)).toHaveText([/150/, /150/, /400/, /150/]);
  await list.fill("1 2 3 4 5");
  await list.press("Enter");
  await expect(page.getByText("5 durations for 4 steps")).toBeVisible();
  await list.press("Escape");

  await steps(page).nth(2).click();
  await page.getByRole("button", { name: "Split here" }).click();
  await expect(clips(page)).toHaveText([/^go0.*0.30 s/, /0.55 s/, /go1/, /go2/, /go3/]);

  await row(page, "go3").click();
  await page.keyboard.press("d");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("copied");
  await page.keyboard.press("Enter");
  await expect(clips(page).last()).toHaveText(/^copied/);
});

test("a run selected in a filtered list leaves out what the filter hides", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Clips");
  await page.getByRole("searchbox", { name: "Filter clips" }).fill("-s");
  await expect(clips(page)).toHaveText([
    ...[/^walk-sS/, /^walk-seSE/, /^walk-swSW/, /^idle-s/],
    ...[/^lamp-walk-sS/, /^lamp-walk-seSE/, /^lamp-walk-swSW/, /^lamp-idle-s/, /^stop-sS/, /^stop-seSE/, /^stop-swSW/],
    ...["walk", "lamp"].flatMap((way) => ["", "-guard", "-elder"].map((worn) => new RegExp(`^bearer-${way}-s${worn}`))),
    /^lamp-swing/,
  ]);
  await clips(page).first().click();
  await clips(page)
    .nth(3)
    .click({ modifiers: ["Shift"] });
  await expect(page.getByRole("heading", { name: "4 clips selected" })).toBeVisible();
  // Keys apply to the whole selection, like the buttons.
  await page.keyboard.press("Shift+Delete");
  await page.getByRole("searchbox", { name: "Filter clips" }).fill("");
  await expect(clips(page)).toHaveCount(55);
});

test("all facings of an action get one speed, one looping and one facing's events, each in one act", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Clips");
  await page
    .getByRole("list", { name: "Actions" })
    .getByRole("button", { name: /^walk\b/ })
    .click();
  const speed = page.getByRole("textbox", { name: "Frames per second of the action" });
  await speed.fill("8");
  await speed.press("Enter");
  await page.getByRole("radiogroup", { name: "Looping of the action" }).getByRole("radio", { name: "Ping-pong" }).click();
  const list = page.getByRole("list", { name: "Clips", exact: true });
  for (const facing of ["s", "se", "e", "ne", "n", "nw", "w", "sw"])
    await expect(list.getByRole("button", { name: new RegExp(`^walk-${facing} `) })).toHaveText(/1\.00 s/);
  // All of them already have the same events; a clip with others can be copied from.
  await expect(page.getByRole("button", { name: /^Events as in/ })).toHaveCount(0);
  await list.getByRole("button", { name: /^walk-s / }).click();
  await page.getByRole("button", { name: /^Step 1:/ }).click();
  const events = page.getByRole("textbox", { name: "Events" });
  await events.fill("dust");
  await events.press("Enter");
  await page
    .getByRole("list", { name: "Actions" })
    .getByRole("button", { name: /^walk\b/ })
    .click();
  await page.getByRole("button", { name: /^Events as in walk-/ }).click();
  await expect(page.getByRole("button", { name: /^Undo: copy the events of walk-.* to 7 clips/ })).toBeVisible();
});
