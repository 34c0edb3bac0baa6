/** What has to come over the wire before the first picture moves, in an empty browser: a budget, so that it does not grow unseen. */
import { expect, test } from "./fixtures";
import { standBefore } from "./stand";

test.use({ ownContext: true });

/** Pages, scripts and styles, for the page and its workers, packed. */
const MOST_CODE = 560_000; // bytes
/** All of it, with the demo's art and one cut of the letters. */
const MOST = 715_000; // bytes

test("the first picture is there before most of the code: what is wanted later comes later", async ({ page, baseURL }) => {
  const stand = await standBefore(baseURL ?? "");
  await page.goto(stand.url);
  // Each display picture, until something is drawn on the player's stage.
  await page.waitForFunction(
    () => {
      const stage = document.querySelector<HTMLCanvasElement>('[data-testid="stage"]');
      const context = stage?.getContext("2d");
      if (!stage || !context || stage.width === 0) return false;
      const { data } = context.getImageData(0, 0, stage.width, stage.height);
      return new Set(new Uint32Array(data.buffer)).size > 40;
    },
    undefined,
    { polling: "raf" },
  );
  const first = [...stand.answers];
  const isCode = ({ path }: { path: string }) => /\.(js|css|wasm)$|^\/$/.test(path.split("?")[0] ?? "");
  const sum = (list: typeof first) => list.reduce((total, { bytes }) => total + bytes, 0);
  expect(sum(first.filter(isCode))).toBeLessThan(MOST_CODE);
  expect(sum(first)).toBeLessThan(MOST);
});
