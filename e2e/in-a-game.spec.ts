import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { extname, join } from "node:path";
import { crop, looksSame } from "@caravan/core/raster";
import { buildSync } from "esbuild";
import { expect, test } from "./fixtures";
import { png } from "./studio";

const root = join(import.meta.dirname, "..");
const demo = join(root, "examples/tamarisk-road");
let out: string;
let server: Server;

/** A page as a game would have it: the delivered files, the player, a canvas, and nothing of the studio. */
const GAME = `<!doctype html><meta charset="utf-8"><canvas id="screen" width="96" height="96"></canvas>
<script type="module">
  import { createPlayer } from "./player.js";
  const atlas = await (await fetch("tamarisk.atlas.json")).json();
  const pages = await Promise.all(atlas.pages.map(async ({ image }) => createImageBitmap(await (await fetch(image)).blob(), { premultiplyAlpha: "none", colorSpaceConversion: "none" })));
  const player = createPlayer(atlas);
  const screen = document.getElementById("screen").getContext("2d");
  window.show = (name, ms, restart) => {
    player.play(name, { restart });
    const now = player.advance(ms);
    screen.clearRect(0, 0, 96, 96);
    if (now.visible) {
      const { page, rect, inset, origin } = atlas.frames[now.frame];
      screen.drawImage(pages[page], rect.x, rect.y, rect.w, rect.h, 48 + inset.x - origin.x, 80 + inset.y - origin.y, rect.w, rect.h);
    }
    return { ...now, pixels: [...screen.getImageData(0, 0, 96, 96).data] };
  };
  document.title = "ready";
</script>`;

test.beforeAll(async () => {
  out = mkdtempSync(join(tmpdir(), "caravan-game-"));
  execFileSync(process.execPath, [join(root, "packages/cli/bin/caravan.mjs"), "build", demo, "--out", out]);
  buildSync({ entryPoints: [join(root, "packages/player/src/index.ts")], bundle: true, format: "esm", outfile: join(out, "player.js") });
  const types: Record<string, string> = { ".js": "text/javascript", ".json": "application/json", ".png": "image/png" };
  server = createServer((request, answer) => {
    const name = (request.url ?? "/").slice(1);
    answer.setHeader("Content-Type", types[extname(name)] ?? "text/html");
    if (name === "favicon.ico") answer.writeHead(404).end();
    else answer.end(name === "" ? GAME : readFileSync(join(out, name)));
  });
  await new Promise<void>((ready) => server.listen(0, ready));
});

test.afterAll(() => {
  server.close();
  rmSync(out, { recursive: true });
});

test("a page with the player alone draws the right frame at the right time, standing on its origin", async ({ page }) => {
  await page.goto(`http://localhost:${(server.address() as AddressInfo).port}/`);
  await expect(page).toHaveTitle("ready");
  const walk = png.decode(readFileSync(join(demo, "art/porter-walk.png")), "walk");
  type Shown = { frame: string | null; step: number; pass: number; ended: boolean; visible: boolean; pixels: number[] };
  const show = (name: string, ms: number, restart = true): Promise<Shown> =>
    page.evaluate(([clip, time, again]) => (window as unknown as { show: (...args: unknown[]) => Shown }).show(clip, time, again), [
      name,
      ms,
      restart,
    ] as const);

  for (const [ms, column] of [
    [0, 0],
    [99.9, 0],
    [100, 1],
    [399, 3],
    [799.9, 7],
    [800, 0],
    [86_400_150, 1],
  ] as const) {
    const { frame, pixels } = await show("walk-e", ms);
    expect([ms, frame]).toEqual([ms, `porter-walk/${16 + column}`]);
    // The frame's origin (20, 46) is at the point (48, 80).
    const drawn = crop({ width: 96, height: 96, bytes: Uint8Array.from(pixels) }, { x: 28, y: 34, w: 40, h: 48 });
    expect(looksSame(drawn, crop(walk, { x: column * 40, y: 2 * 48, w: 40, h: 48 }))).toBe(true);
  }
  expect(await show("dust-whirl", 999)).toMatchObject({ frame: "dust-whirl/19", visible: true, ended: false });
  const gone = await show("dust-whirl", 1, false);
  expect(gone).toMatchObject({ frame: null, visible: false, ended: true });
  expect(gone.pixels.every((value) => value === 0)).toBe(true);
});
