import { expect, type Locator, type Page, test } from "./fixtures";
import { dropAndCut, figureSheet, openEmpty, openStudio } from "./studio";

/** Presses Tab until the wanted control has the focus, as someone without a mouse does; Shift+Tab if it comes before the focus. */
async function tabTo(page: Page, target: Locator): Promise<void> {
  await target.waitFor();
  for (let k = 0; k < 160; k++) {
    const way = await target.evaluate((element) => {
      const focus = document.activeElement;
      if (element === focus) return null;
      return focus && focus !== document.body && element.compareDocumentPosition(focus) & Node.DOCUMENT_POSITION_FOLLOWING
        ? "Shift+Tab"
        : "Tab";
    });
    if (way === null) return;
    await page.keyboard.press(way);
  }
  throw new Error("Tab never comes there.");
}

/** The same through a part of the window that one key reaches: fewer presses, like an everyday user. */
async function tabInto(page: Page, region: "list" | "surface", target: Locator): Promise<void> {
  const isThere = () => page.evaluate((name) => document.activeElement?.closest(`[data-region="${name}"]`) != null, region);
  for (let k = 0; k < 8 && !(await isThere()); k++) await page.keyboard.press("F6");
  await tabTo(page, target);
}

const steps = (page: Page, clip: string) => page.getByRole("list", { name: `Steps of ${clip}` }).getByRole("button");
const times = (page: Page, clip: string) =>
  steps(page, clip).evaluateAll((all) => all.map((each) => Number(/([\d.]+) ms$/.exec(each.getAttribute("aria-label") ?? "")?.[1])));

/** A clip of the rows that are picked with R, one after the other, named by typing. */
async function clipByKeys(page: Page, name: string, rows: number): Promise<void> {
  await page.keyboard.press("Escape");
  await page.keyboard.press("ArrowRight");
  for (let row = 0; row < rows; row++) {
    if (row > 0) await page.keyboard.press("ArrowDown");
    await page.keyboard.press("r");
  }
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
}

test("by keys alone: the demo's actions are removed, and made again from the names of their clips", async ({ page }) => {
  await openStudio(page);
  await page.keyboard.press("3");
  const actions = page.getByRole("list", { name: "Actions" }).getByRole("button");
  await tabInto(page, "list", actions.first());
  const all = await actions.count();
  for (let left = all; left > 0; left--) {
    await page.keyboard.press("Enter");
    await tabInto(page, "surface", page.getByRole("button", { name: "Remove the action", exact: true }));
    await page.keyboard.press("Enter");
    await expect(actions).toHaveCount(left - 1);
    if (left > 1) await tabInto(page, "list", actions.first());
  }
  await tabInto(page, "list", page.getByRole("button", { name: "By names …" }));
  await page.keyboard.press("Enter");
  await tabTo(page, page.getByRole("dialog").getByRole("button", { name: "Make 7 actions" }));
  await page.keyboard.press("Enter");
  await expect(actions).toHaveText([
    ...["bearer-lamp3 of 4", "bearer-walk3 of 4", "idle3 of 4", "lamp-idle3 of 4"],
    ...["lamp-walk8 ways", "stop8 ways", "walk8 ways"],
  ]);
});

test("by keys alone: a slipping step is found, dropped, and the clip split in three", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "stride.png", figureSheet(6, 1), 6, 1);
  await clipByKeys(page, "stride", 1);
  await page.keyboard.press("k");
  await expect(page.getByTestId("flick")).toHaveAttribute("data-frame", "stride/0");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("x");
  await expect(page.getByTestId("flick")).toHaveAttribute("data-frame", "stride/3");
  await page.keyboard.press("Delete");
  await page.keyboard.press("r");
  await expect(steps(page, "stride")).toHaveCount(5);
  await page.keyboard.press("Escape");
  for (let k = 0; k < 3; k++) await page.keyboard.press("ArrowRight");
  // Two chosen steps become a clip of their own; one would only be split before.
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("s");
  await expect(page.getByRole("list", { name: "Clips" }).getByRole("button")).toHaveCount(3);
});

test("by keys alone: 20 pictures in 750 ms, once, then hidden; 150/150 and 120/80/120/80", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "burst.png", figureSheet(5, 4), 5, 4);
  await clipByKeys(page, "burst", 4);
  await page.keyboard.press("o");
  const then = page.getByRole("combobox", { name: "then" });
  await tabTo(page, then);
  // It opens with an arrow, and a letter leads to what begins with it.
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("option", { name: "hold last" })).toBeFocused();
  await page.keyboard.type("hi");
  await expect(page.getByRole("option", { name: "hide" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(then).toHaveText("hide");
  await tabTo(page, page.getByRole("textbox", { name: "Seconds in all" }));
  await page.keyboard.type("0.75");
  await page.keyboard.press("Enter");
  await expect.poll(() => times(page, "burst")).toEqual(Array(20).fill(37.5));
  await page.keyboard.press("Shift+A");
  await page.keyboard.type("0-3");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("beat");
  await page.keyboard.press("Enter");
  for (const ms of ["120", "80", "120", "80"]) {
    await page.keyboard.press("ArrowRight");
    await page.keyboard.press("t");
    await page.keyboard.type(ms);
    await page.keyboard.press("Enter");
  }
  await expect.poll(() => times(page, "beat")).toEqual([120, 80, 120, 80]);
  // The last two go; the whole clip is set to 150 each.
  await page.keyboard.press("Shift+ArrowLeft");
  await page.keyboard.press("Delete");
  await page.keyboard.press("Escape");
  await page.keyboard.press("t");
  await page.keyboard.type("150");
  await page.keyboard.press("Enter");
  await expect.poll(() => times(page, "beat")).toEqual([150, 150]);
});

test("by keys alone: an action by rows, its west mirrored, turned, and all of it put on its feet", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "porter.png", figureSheet(4, 3), 4, 3);
  await clipByKeys(page, "one", 1);
  await tabTo(page, page.getByRole("button", { name: "By rows …" }));
  await page.keyboard.press("Enter");
  await tabTo(page, page.getByRole("dialog").getByRole("button", { name: "Make porter" }));
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: "Wind rose of porter" })).toBeVisible();
  const stage = page.getByTestId("stage");
  const seen: (string | null)[] = [];
  for (let k = 0; k < 4; k++) {
    await page.keyboard.press("]");
    await page.waitForTimeout(80);
    seen.push(await stage.getAttribute("data-facing"));
  }
  expect(new Set(seen)).toEqual(new Set(["e", "s", "w", "n"]));
  // Left missing, and mirrored again.
  while ((await stage.getAttribute("data-facing")) !== "w") {
    await page.keyboard.press("ArrowRight");
    await page.waitForTimeout(80);
  }
  await page.keyboard.press("Delete");
  await expect(page.getByRole("button", { name: "Facing w: missing" })).toBeVisible();
  await page.keyboard.press("m");
  await expect(page.getByRole("button", { name: "Facing w: mirror of porter-e" })).toBeVisible();
  await page.keyboard.press("Enter");
  await page.keyboard.press("g");
  await tabTo(page, page.getByRole("radio", { name: "Clip", exact: true }));
  // As long as a finger presses: a selection follows the focus only while the key is down.
  await page.keyboard.press("ArrowRight", { delay: 80 });
  await expect(page.getByRole("radio", { name: "Action" })).toBeChecked();
  await tabTo(page, page.getByRole("button", { name: "Bottom of the box" }));
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Undo: place the origin of the action porter" })).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Origin y", exact: true })).toHaveValue("39");
});

test("from the start of the page no control of the main job is more than eight presses away", async ({ page }) => {
  await openStudio(page);
  const button = (name: string | RegExp) => page.getByRole("button", { name, exact: true }).first();
  const field = (name: string) => page.getByRole("textbox", { name, exact: true });
  const radio = (name: string) => page.getByRole("radio", { name, exact: true });
  const controls: Record<string, Locator[]> = {
    "1": [button(/^Add pictures/), button("Add a folder"), button("Link a folder"), button("See its frames")],
    "2": [
      ...[radio("Outlines"), field("Columns"), field("Rows"), field("Cell width"), field("Cell height"), field("Margin left")],
      ...[page.getByRole("listbox", { name: /^Frames of/ }), button(/^Clips of rows/), button(/^Make clip/)],
    ],
    "3": [field("Clip name"), field("Frames per second"), field("Seconds in all"), radio("Flick"), radio("Ping-pong")],
    "4": [button("Origin at the top left"), field("Origin x"), field("Origin y"), button("Feet"), button("Middle of mass"), radio("Clip")],
    "5": [radio("½"), button("Restart"), button(/^Record/), button("New rule")],
    "6": [field("Name of the delivery"), button(/^Deliver as ZIP/), radio("Films"), field("Extrude"), radio("Clips")],
  };
  const MOST = 8;
  const far: string[] = [];
  for (const [digit, all] of Object.entries(controls)) {
    for (let parts = 0; parts < 6; parts++) {
      // As after loading: nothing has the focus.
      await page.evaluate(() => {
        document.body.tabIndex = -1;
        document.body.focus();
      });
      await page.keyboard.press(digit);
      for (const each of all) await each.waitFor();
      for (let k = 0; k < parts; k++) await page.keyboard.press("F6");
      for (let presses = 1 + parts; presses <= MOST; presses++) {
        await page.evaluate(() => document.activeElement !== document.body && document.activeElement?.setAttribute("data-reached", ""));
        await page.keyboard.press("Tab");
      }
    }
    for (const control of all) {
      // A key of its own is nearer still; within a group the arrow keys move.
      const isReached = await control.evaluate((each) => {
        const group = each.closest("[role=radiogroup], [role=toolbar]") ?? each;
        return each.hasAttribute("aria-keyshortcuts") || group.matches("[data-reached], :has([data-reached])");
      });
      if (!isReached) far.push(`${digit}: ${control}`);
    }
  }
  expect(far).toEqual([]);
  // Steps are at the arrow keys from the start.
  await page.keyboard.press("3");
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("button", { name: /^Step \d+:/, pressed: true })).toHaveCount(1);
});
