import { writeBundle } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import {
  addAction,
  addClip,
  addMarkKind,
  addRehearsal,
  addSources,
  addStage,
  cutSource,
  mirrorMissing,
  putPoint,
  setClipRules,
  setPetal,
  setStepDurations,
  setStepEvents,
} from "@caravan/core/edit";
import {
  type ActionName,
  type ClipName,
  emptyProject,
  type FrameRef,
  type MarkName,
  type SourceId,
  type StageName,
} from "@caravan/core/model";
import { clearPixels, coverageOf, type Pixels } from "@caravan/core/raster";
import { guessedRoles, proposed } from "@caravan/core/stage";
import { expect, type Page, test } from "./fixtures";
import { dropFiles, goTo, openEmpty, png } from "./studio";

/** Pixels of a cell; a figure's origin is at its bottom centre. */
const CELL = { w: 16, h: 20 };
const HAND = { x: 13, y: 6 };
const SPEED = 40;
const REACH = 60;
const START = { x: 160, y: 150 };

/** A thrower with four steps of 500 ms who releases on the third; rows: standing, throwing, the thrown thing: 2 × 2 px of pure red. */
function thrower(): Pixels {
  const sheet = clearPixels(4 * CELL.w, 3 * CELL.h);
  const block = (column: number, row: number, x: number, y: number, w: number, h: number, colour: readonly number[]) => {
    for (let dy = 0; dy < h; dy++)
      for (let dx = 0; dx < w; dx++) sheet.bytes.set(colour, ((row * CELL.h + y + dy) * sheet.width + column * CELL.w + x + dx) * 4);
  };
  for (let column = 0; column < 4; column++) {
    block(column, 0, 5, 4, 6, 16, [30, 90 + column, 60, 255]);
    block(column, 1, 5, 4, 6, 16, [30, 90, 60 + column * 20, 255]);
  }
  block(0, 2, 7, 18, 2, 2, [255, 0, 0, 255]);
  return sheet;
}

/** The thrower on two stages: he looks east on the one and west, mirrored, on the other. */
function project(): Uint8Array {
  const sheet = thrower();
  const bytes = png.encode(sheet);
  const sha256 = sha256Hex(bytes);
  const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;
  const named = (name: string) => name as ClipName;
  const none = { x: 0, y: 0 };
  const { width, height } = sheet;
  let made = addSources(emptyProject("throwing"), [{ fileName: "thrower.png", sha256, width, height }]);
  made = cutSource(made, "s1" as SourceId, { by: "cell", cell: CELL, margin: none, gap: none, keepEmpty: true }, coverageOf(sheet));
  made = addClip(made, [ref(0, 0), ref(1, 0)], "idle-e");
  made = addClip(
    made,
    [0, 1, 2, 3].map((column) => ref(column, 1)),
    "throw-e",
  );
  made = addClip(made, [ref(0, 2)], "bolt");
  made = setClipRules(made, named("throw-e"), { playback: "once" });
  made = setStepDurations(made, named("throw-e"), [0, 1, 2, 3], 500_000);
  made = setStepEvents(made, named("throw-e"), [2], ["shot"]);
  for (const action of ["idle", "throw"] as ActionName[]) {
    made = addAction(made, action, 2);
    made = mirrorMissing(setPetal(made, action, "e", { clip: named(`${action}-e`) }), action);
  }
  made = putPoint(addMarkKind(made, "point", "hand"), "throw-e", [ref(2, 1)], "hand" as MarkName, ref(2, 1), HAND);
  const { behaviour, stage } = proposed(made, guessedRoles(made), "thrower");
  const set = {
    ...stage,
    world: { w: 320, h: 180 },
    ground: 150,
    backdrop: "plain" as const,
    effects: [{ name: "bolt", event: "shot", play: "bolt", point: "hand" as MarkName, speed: SPEED, reach: REACH }],
  };
  made = addRehearsal(made, behaviour, { ...set, name: "east" as StageName, start: { ...START, facing: "e" } });
  made = addStage(made, { ...set, behaviour: behaviour.name, name: "west" as StageName, start: { ...START, facing: "w" } });
  return writeBundle({ project: made, pictures: new Map([[sha256, bytes]]) });
}

/** The position of pure red on the stage, in px of the game; null if there is none. */
const red = (page: Page) =>
  page.getByTestId("rehearsal").evaluate((canvas: HTMLCanvasElement) => {
    const { data, width } = (canvas.getContext("2d") as CanvasRenderingContext2D).getImageData(0, 0, canvas.width, canvas.height);
    let [left, top, right, bottom] = [1e9, 1e9, -1, -1];
    for (let at = 0; at < data.length; at += 4)
      if (data[at] === 255 && data[at + 1] === 0 && data[at + 2] === 0) {
        const [x, y] = [(at / 4) % width, Math.floor(at / 4 / width)];
        [left, top, right, bottom] = [Math.min(left, x), Math.min(top, y), Math.max(right, x), Math.max(bottom, y)];
      }
    const zoom = width / 320;
    return right < 0 ? null : { x: left / zoom, y: top / zoom, w: (right + 1 - left) / zoom, h: (bottom + 1 - top) / zoom };
  });

/** Pauses the rehearsal and shows it at this many ms after its start; returns the time shown. */
async function showAt(page: Page, ms: number): Promise<number> {
  const lanes = page.getByTestId("lanes");
  const { width } = (await lanes.boundingBox()) as { width: number };
  const span = Math.max(6000, Number(await lanes.getAttribute("data-end")));
  await lanes.click({ position: { x: 58 + (ms / span) * (width - 58), y: 8 } });
  await page.mouse.move(10, 300);
  const stage = page.getByTestId("rehearsal");
  await expect.poll(async () => Math.abs(Number(await stage.getAttribute("data-at")) - ms)).toBeLessThan(12);
  return Number(await stage.getAttribute("data-at"));
}

test("a shot leaves the hand, on the step that lets go, to where the figure looks, and is gone at the end of its reach", async ({
  page,
}) => {
  await openEmpty(page);
  await dropFiles(page, [{ name: "throwing.caravan", bytes: project() }]);
  await expect(page.getByText("Opened throwing.caravan as a project of its own.")).toBeVisible();
  await goTo(page, "Rehearse");
  const stage = page.getByTestId("rehearsal");
  // A throw lasts for a moment: that it was there is read from the account.
  const throws = page.getByRole("list", { name: "What showed and why" }).getByRole("listitem").filter({ hasText: "s: throw plays " });
  for (const [name, side] of [
    ["east", 1],
    ["west", -1],
  ] as const) {
    await page.getByRole("list", { name: "Stages" }).getByRole("button", { name }).click();
    await expect(stage).toHaveAttribute("data-rule", "idle");
    await page.keyboard.press("Space");
    await expect(throws).toHaveCount(1);
    await expect(stage).toHaveAttribute("data-rule", "idle");
    await expect.poll(async () => Number(await stage.getAttribute("data-at"))).toBeGreaterThan(4500);
    await page.keyboard.press("Enter");
    const shot = Number(await page.getByTestId("lanes").getAttribute("data-first-event"));
    await showAt(page, shot - 30);
    expect(await red(page)).toBeNull();
    for (const later of [30, 400, 1000]) {
      const gone = ((await showAt(page, shot + later)) - shot) / 1000;
      const at = await red(page);
      expect(at).toMatchObject({ y: START.y - CELL.h + HAND.y - 2, w: 2, h: 2 });
      // The thrown thing's own origin is between its two columns.
      expect(Math.abs((at?.x ?? 0) - (START.x + side * (HAND.x - CELL.w / 2 + SPEED * gone) - 1))).toBeLessThanOrEqual(1);
    }
    await showAt(page, shot + (REACH / SPEED) * 1000 + 30);
    expect(await red(page)).toBeNull();
  }
});

test("a click is heard at the event if it is switched on, and nothing before", async ({ page }) => {
  // Sound to the speakers also passes through an analyser, which is polled for its loudest sample.
  await page.addInitScript(() => {
    const heard: number[] = [];
    Object.assign(window, { heard });
    const connect = AudioNode.prototype.connect as (this: AudioNode, ...args: unknown[]) => AudioNode;
    AudioNode.prototype.connect = function (this: AudioNode, ...args: unknown[]) {
      if (args[0] instanceof AudioDestinationNode) {
        const analyser = this.context.createAnalyser();
        const samples = new Float32Array(analyser.fftSize);
        connect.call(this, analyser);
        const timer = setInterval(() => {
          analyser.getFloatTimeDomainData(samples);
          heard.push(samples.reduce((most, each) => Math.max(most, Math.abs(each)), 0));
          if (heard.length > 500) clearInterval(timer);
        }, 10);
      }
      return connect.call(this, ...args);
    } as typeof AudioNode.prototype.connect;
  });
  const loudest = () => page.evaluate(() => Math.max(0, ...(window as unknown as { heard: number[] }).heard));
  await openEmpty(page);
  await dropFiles(page, [{ name: "throwing.caravan", bytes: project() }]);
  await expect(page.getByText("Opened throwing.caravan as a project of its own.")).toBeVisible();
  await goTo(page, "Rehearse");
  const stage = page.getByTestId("rehearsal");
  // A throw lasts for a moment: that it was there is read from the account.
  const throws = page.getByRole("list", { name: "What showed and why" }).getByRole("listitem").filter({ hasText: "s: throw plays " });
  await expect(stage).toHaveAttribute("data-rule", "idle");
  await page.keyboard.press("Space");
  await expect(throws).toHaveCount(1);
  await expect(stage).toHaveAttribute("data-rule", "idle");
  expect(await loudest()).toBe(0);
  await page.getByRole("checkbox", { name: "click on events" }).check();
  await page.keyboard.press("Space");
  await expect(stage).toHaveAttribute("data-rule", "throw");
  expect(await loudest()).toBe(0);
  await expect.poll(loudest).toBeGreaterThan(0.02);
});
