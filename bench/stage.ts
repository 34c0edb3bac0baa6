/**
 * Measures whether the stage keeps up with the display: the demo's camp with two figures and 20 effects, driven for five seconds.
 *
 * `npm run bench:stage` needs the built studio. It prints the frames per second, the 95th percentile of the time between them, and the
 * page's work for each.
 */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { bundleFiles, readProjectFile } from "@caravan/core/bundle";
import { writeZip } from "@caravan/core/codec";
import type { Effect, Project, Stage } from "@caravan/core/model";
import { chromium } from "@playwright/test";
import { BROWSER } from "../e2e/browser";
import { dropFiles, goTo } from "../e2e/studio";
import { STUDIO, serveStudio } from "./serve";

const DEMO = join(import.meta.dirname, "../examples/tamarisk-road");
const EFFECTS = 20;
const SECONDS = 5;

/** The fire crackles every 360 ms; each time five sparks fly for 1.5 s, so that 20 or more are in the air. */
function crowded(project: Project): Project {
  const sparks: Effect = { name: "sparks", event: "crackle", play: "sparks", speed: 20, reach: 30 };
  const [camp] = project.stages ?? [];
  if (!camp) throw new Error("The demo has no stage.");
  const stage: Stage = {
    ...camp,
    effects: Array.from({ length: EFFECTS / 4 }, (_, k) => ({ ...sparks, name: `sparks ${k}`, reach: 30 + k })),
    extras: [...camp.extras, { name: "another", play: "walk-s", facing: "s", x: 180, y: 200 }],
  };
  return { ...project, name: "crowded", stages: [stage] };
}

function bundle(): Uint8Array {
  const project = crowded(readProjectFile(readFileSync(join(DEMO, "caravan.json")), "demo"));
  const pictures = new Map(
    project.sources.flatMap((each) => each.pictures.map(({ sha256, file }) => [sha256, readFileSync(join(DEMO, file))])),
  );
  return writeZip(bundleFiles({ project, pictures }));
}

/** As a text: the runner's compiler would put its own names into a function. */
const TIMES_OF_PICTURES = `new Promise((resolve) => {
  const all = [];
  const begin = performance.now();
  const next = (now) => {
    all.push(now);
    if (now - begin < ${SECONDS * 1000}) requestAnimationFrame(next);
    else resolve(all);
  };
  requestAnimationFrame(next);
})`;

const server = await serveStudio();
const browser = await chromium.launch(BROWSER);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(STUDIO);
  await page.getByTestId("sheet").waitFor();
  await dropFiles(page, [{ name: "crowded.caravan", bytes: bundle() }]);
  await page.waitForFunction(() => document.title.startsWith("crowded"));
  await goTo(page, "Rehearse");
  await page.keyboard.down("ArrowRight");
  await page.waitForTimeout(4000);
  const session = await page.context().newCDPSession(page);
  await session.send("Performance.enable");
  const worked = async () => (await session.send("Performance.getMetrics")).metrics.find(({ name }) => name === "TaskDuration")?.value ?? 0;
  for (const what of ["walking to the right", "walking back"]) {
    const before = await worked();
    const times = await page.evaluate<number[]>(TIMES_OF_PICTURES);
    const work = ((await worked()) - before) * 1000;
    const gaps = times.slice(1).map((time, k) => time - (times[k] as number));
    const sorted = gaps.toSorted((a, b) => a - b);
    console.log(
      `${what}: ${(gaps.length / SECONDS).toFixed(1)} pictures a second; between two of them ${(sorted[Math.floor(sorted.length * 0.95)] ?? 0).toFixed(1)} ms at the 95th percentile, ${(sorted.at(-1) ?? 0).toFixed(1)} ms at most; ${(work / gaps.length).toFixed(1)} ms of work each`,
    );
    await page.keyboard.up("ArrowRight");
    await page.keyboard.down("ArrowLeft");
  }
} finally {
  await browser.close();
  server.kill();
}
