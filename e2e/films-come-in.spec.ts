/** Films that the browser decodes: which frames are taken, how many, how large, and when each shows. */
import { violationsOn } from "./axe";
import { expect, type Page, test } from "./fixtures";
import { choose, delivered, dropFiles, figureSheet, goTo, openEmpty, pngFile, typeNumber, type UploadedFile } from "./studio";

/**
 * Twelve frames of 64 × 48: frame k is a grey of 20 k with a white block 8 wide at 5 k. Each shows for 40 ms, the sixth for 120. VP8, written by
 * a browser.
 */
const FILM =
  "GkXfoxAAAB9ChoEBQveBAULygQRC84EIQoKEd2VibUKHgQRChYECGFOAZwQAAAAFExFNm3QQAAA/TbsQAAAPU6uEFUmpZlOshQAAAABHTbsQAAAPU6uEFlSu" +
  "a1OshQAAAACLTbsQAAAPU6uEHFO7a1OshQAAAAT4FUmpZhAAADwq17GDD0JATYCSTWVkaWFidW5ueSB2MS42MS4wV0GSTWVkaWFidW5ueSB2MS42MS4wRImI" +
  "QIGAAAAAAAAWVK5rEAAAQa4QAAA814EBc8WBAYOBAZyBACK1nIN1bmSGhVZfVlA44BAAABywgUC6gTBVsBAAABBVsYEBVbqBDVW7gQFVuYECH0O2dQgAAAQb" +
  "54EAoxAAADeBAACAUAMAnQEqQAAwAAAHCIWFiJmEiAEkEAA8h55RVIN2Zn9OIpAA/v+7Aj///k4A7v/3TtAAoxAAAIGBACgA8QQAABAJIADbYD+APaA/gC86" +
  "v8BuQP8BZ4DiAIBITcXrgD98tZS1ZPIA/v+l5F+G1f//94TQ//91uP/+6Ca///eQ3a+WwP1kli5ZTRrvEHb4IFrIRmr2jBrjJ3zHTeRZfGJ8ZJCITf/RkwXR" +
  "isNZFLKyg79GNl8EvLrX0ACjEAAAXYEAUADRAwAAEAkgANuArgF+A/4D+A/wEAHrjjdUAcjyLHKGJxD+/1VbJTYJ//sIi/+f//54sf/8PU0K06ob0yt2Gc/5" +
  "i//nf/+c////FQUrMYEZILYzSn6IP4hQAKMQAABYgQB4AHEDAAAQCSAA2x//wFOf/8BACQkN3NAIpd/m0QCxAP7+yO7qG/Zf/v/2U3/9rsa37nLw6Y/c5TKY" +
  "bf/7xT37/+NB//Y8CewoXhshpyq7JjQzfDeAAKMQAAAogQCgAHECAAAQCSAAwADyr3+gAG7isTPv5AD+/YQI9VVB/+MBN1u+AKMQAABQgQDIAJECAAAQCSAA" +
  "wAESH7+gAQKXf5tEAnAA/vk2b8yB//u9nfv/2VP/9rt3EdK4jpXEdK4TSjOeN+q/Lv//2PVzoX8bernQv4x7ttODj7CjEAAAVoEBQACxAgAAEAkgANsAIAFU" +
  "J6+IAUfj20TwgzD+641fdm/+rj/5///niu//w9oxUNe6/bWDM++2Cf/7FOv/n//+fIf//ioKAFSi/o5rqWSvH7CigMAAoxAAAESBAWgAsQIAABAJIADbH+AB" +
  "LNtfiACOilOc/u0A/u8876sB/7h//sHL//2uxpf//Y8CsENkJTOLZWV5VfwdKBU7X27SAKMQAAAqgQGQAHECAAAQCSAAwAECb3+gAL3U7sFLVoD++nDl243/" +
  "/ibO+aOXnpwAoxAAAISBAbgAkQMAABAJIADbsH/Nb3/jAQAiQ/f0ACBTi0RDxmYAAP798fn2I38UUt/7//3Xd/L8LH/Hb7n8Tq094tW65BjQue+zw2whmiEE" +
  "9ykPv9/+1c4Otf8P3/w+K6kqfDl/v/29/odBZ/vJ1AkibPsPn8eI8oFGuCa9y4gjJrlHvZXvYACjEAAASoEB4ADxAgAAEAkgAMuwG3/wAf907zQA7HPTLDHA" +
  "AP7+4b19RK//S+f/9QYR//9rxzn/++itKnQh+nNgqWyOx57NDP3JWhcJ1cgAoxAAAGWBAggA8QMAABAJIADbBW4f/+A/1W8AfoCAD/uneaAHY56ppzkAAP7/" +
  "bqa9TLf/yfL4n/bZuacE//8DF90W6fsBsoGj3Xv7OgLhuMWtZNzQ2CjP853XCzaiDm8Bu9KNj3SXT9bAABxTu2sQAAATuxAAAA6zgQC3EAAABveBAfGB1A==";

const film = (name = "dance.webm"): UploadedFile => ({ name, bytes: new Uint8Array(Buffer.from(FILM, "base64")) });
const asked = (page: Page, name = "dance.webm") => page.getByRole("dialog", { name: `Frames of ${name}` });
const review = (page: Page) => page.getByRole("dialog", { name: "Import review" });

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

test("every frame of a film is imported, in order, with its own duration", async ({ page }) => {
  await dropFiles(page, [film()]);
  await expect(asked(page)).toContainText("12 frames of 64 × 48 px in 0.56 s, 21.43 fps.");
  await expect(page.getByTestId("film-outcome")).toHaveText("12 frames of 64 × 48 px, 0.56 s, 21.43 fps; 147.5 KB in memory");
  await expect(asked(page).getByRole("img")).toHaveCount(2);
  expect(await violationsOn(page)).toEqual([]);
  await page.keyboard.press("Enter");
  await expect(review(page)).toContainText("An animation of 12 pictures, 64 × 48 px, 560 ms a loop");
  // A film is opaque, so its background is offered to be cleared.
  await review(page)
    .getByRole("checkbox", { name: /^Clear its plain background/ })
    .uncheck();
  await page.getByRole("button", { name: "Import" }).click();
  const { atlas, frame } = await delivered(page);
  expect(atlas.clips.dance?.steps.map(({ ms }) => ms)).toEqual([40, 40, 40, 40, 40, 120, 40, 40, 40, 40, 40, 40]);
  for (let k = 0; k < 12; k++) {
    const { bytes, width } = frame(`dance/${k}`);
    const grey = (x: number, y: number) => bytes[(y * width + x) * 4] as number;
    // The grey is exact enough to distinguish neighbouring frames, and the white block is where it was drawn.
    expect(Math.abs(grey(63, 2) - 20 * k)).toBeLessThan(8);
    expect(grey(5 * k + 4, 24)).toBeGreaterThan(235);
    expect([bytes.length, bytes[3]]).toEqual([64 * 48 * 4, 255]);
  }
});

test("a range, every second frame and a smaller size are taken, and no time is lost between them", async ({ page }) => {
  await dropFiles(page, [film()]);
  await expect(asked(page)).toBeVisible();
  await typeNumber(page, "from frame", 2);
  await typeNumber(page, "to frame", 8);
  await typeNumber(page, "keep one in", 2);
  await choose(page, asked(page).getByRole("combobox", { name: "Size of the frames" }), "32 × 24 (1/2)");
  await expect(page.getByTestId("film-outcome")).toHaveText("4 frames of 32 × 24 px, 0.36 s, 11.11 fps; 12.3 KB in memory");
  await expect(asked(page).getByRole("img", { name: "last: frame 8" })).toBeVisible();
  await asked(page).getByRole("button", { name: "Take 4 frames" }).click();
  await review(page)
    .getByRole("checkbox", { name: /^Clear its plain background/ })
    .uncheck();
  await page.getByRole("button", { name: "Import" }).click();
  const { atlas, frame } = await delivered(page);
  // The frame of 120 ms is left out; its time is not.
  expect(atlas.clips.dance?.steps.map(({ ms }) => ms)).toEqual([80, 160, 80, 40]);
  for (const [k, place] of [2, 4, 6, 8].entries()) {
    const { bytes, width, height } = frame(`dance/${k}`);
    expect([width, height]).toEqual([32, 24]);
    expect([place, Math.round((bytes[(1 * width + 31) * 4] as number) / 20)]).toEqual([place, place]);
  }
});

test("films and stills of one drop are reviewed together; cancelling a film keeps the rest", async ({ page }) => {
  await dropFiles(page, [film("jump.webm"), film("dance.webm"), pngFile("porter.png", figureSheet(2, 2))]);
  await asked(page, "dance.webm").getByRole("button", { name: "Take 12 frames" }).click();
  await asked(page, "jump.webm").getByRole("button", { name: "Cancel" }).click();
  await expect(review(page).getByRole("heading", { level: 3 })).toHaveText(["dance", "porter.png"]);
});

test("a damaged or fake film is refused by name, and nothing is imported", async ({ page }) => {
  await dropFiles(page, [
    { name: "letter.webm", bytes: new TextEncoder().encode("Dear reader, this is no film.") },
    { name: "torn.webm", bytes: film().bytes.subarray(0, 200) },
  ]);
  await goTo(page, "Sources");
  await expect(page.getByText(/letter\.webm: /).first()).toBeVisible();
  await expect(page.getByText(/torn\.webm: /).first()).toBeVisible();
  await expect(page.getByText("No pictures yet.")).toBeVisible();
});

test("keys do nothing under a dialog, also when a field of it was left by Enter", async ({ page }) => {
  await dropFiles(page, [film()]);
  await typeNumber(page, "from frame", 3);
  await page.keyboard.press("3");
  await asked(page).getByRole("button", { name: "Cancel" }).click();
  await expect(page.getByTestId("surface").getByRole("heading", { name: "Sources" })).toBeVisible();
});
