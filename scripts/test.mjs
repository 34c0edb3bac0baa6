// npm test: every check there is; ends with one line "N passed, N failed". What the browser tests need is built while types are checked.
import { spawn } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { installBrowser, installPackages } from "./install.mjs";

const root = join(import.meta.dirname, "..");
const reports = join(root, ".test");
const total = { passed: 0, failed: 0 };
const started = performance.now();
/** Whether one command runs at a time, so that what it prints can be seen at once. */
let alone = false;

installPackages();
const chromium = installBrowser();
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });
// What an earlier build left of route types would be checked too.
rmSync(join(root, "apps/studio/.next/types"), { recursive: true, force: true });

const node = (script, ...args) => run(process.execPath, [join(root, script), ...args]);

const [built] = await Promise.all([
  check("The studio builds", () => node("scripts/build-studio.mjs")),
  (async () => {
    await check("Types", () => node("scripts/check-types.mjs"));
    await check("Lint", () => node("node_modules/@biomejs/biome/bin/biome", "check", "--error-on-warnings", "."));
    await check("Import rules", () =>
      node("node_modules/dependency-cruiser/bin/dependency-cruise.mjs", "--config", "scripts/import-rules.cjs", "packages", "apps"),
    );
    await check("Nothing exported that nobody uses", () => node("node_modules/knip/bin/knip.js", "--no-progress"));
    await check("The command line builds", () => node("scripts/build-command.mjs"));
  })(),
]);
const slowest = [];
await suite(
  "Unit tests",
  () => node("node_modules/vitest/vitest.mjs", "run", "--reporter=dot", "--reporter=json", `--outputFile=${join(reports, "unit.json")}`),
  unitCounts,
);
await check("2,000 damaged files are refused or read, none of them crashes a reader", () =>
  node("node_modules/tsx/dist/cli.mjs", "bench/fuzz.ts", "--count", "2000"),
);
/** Tests that passed only at the second try, as `file:line`. */
const unsteady = [];
const browserTests = (...args) => node("node_modules/@playwright/test/cli.js", "test", "--config", "e2e/playwright.config.ts", ...args);
if (built) await suite("Browser tests", () => browserTests(), browserCounts);
// A machine that stalled for seconds is no fault of a test; one that fails again among five tries is unsteady, and fails.
if (unsteady.length > 0)
  await check(`Again, five times each: ${unsteady.join(", ")}`, () => browserTests("--repeat-each=5", "--retries=0", ...unsteady));

console.log("\nThe ten slowest:");
for (const { ms, title } of slowest.sort((a, b) => b.ms - a.ms).slice(0, 10)) console.log(`${seconds(ms).padStart(7)}  ${title}`);
console.log(`\nAll of it took ${seconds(performance.now() - started)}.`);
console.log(`${total.passed} passed, ${total.failed} failed`);
process.exitCode = total.failed === 0 ? 0 : 1;

/** Runs a command; its output is printed in one piece at the end, because others may run beside it. Returns whether it succeeded. */
function run(command, args) {
  const env = { ...process.env, CHROMIUM: chromium, NEXT_TELEMETRY_DISABLED: "1", CARAVAN_REPORTS: reports, CI: "1", NO_COLOR: "1" };
  return new Promise((answer) => {
    const child = spawn(command, args, { cwd: root, stdio: ["ignore", "pipe", "pipe"], env });
    const printed = [];
    for (const stream of [child.stdout, child.stderr])
      stream.on("data", (text) => (alone ? process.stdout.write(text) : printed.push(text)));
    child.on("close", (code) => {
      for (const text of printed) process.stdout.write(text);
      answer(code === 0);
    });
  });
}

/** One check that passes or fails as a whole. */
async function check(name, work) {
  const start = performance.now();
  const passed = await work();
  total[passed ? "passed" : "failed"]++;
  console.log(`\n${passed ? "✓" : "✗"} ${name}${passed ? "" : " failed"} (${seconds(performance.now() - start)})`);
  return passed;
}

/** Many tests with a report. A run that leaves none, or fails without a failed test, counts as one failure. */
async function suite(name, work, countsOf) {
  console.log(`\n— ${name}`);
  const start = performance.now();
  alone = true;
  const passed = await work();
  let counts = { passed: 0, failed: 0 };
  try {
    counts = countsOf();
  } catch {
    console.log(`✗ ${name} left no report`);
  }
  total.passed += counts.passed;
  total.failed += counts.failed;
  if (!passed && counts.failed === 0) total.failed++;
  console.log(`${name}: ${counts.passed} passed, ${counts.failed} failed (${seconds(performance.now() - start)})`);
}

function unitCounts() {
  const report = JSON.parse(readFileSync(join(reports, "unit.json"), "utf8"));
  for (const { assertionResults } of report.testResults)
    for (const { duration, fullName } of assertionResults) slowest.push({ ms: duration ?? 0, title: fullName });
  return { passed: report.numPassedTests, failed: report.numFailedTests };
}

function browserCounts() {
  const { stats, suites } = JSON.parse(readFileSync(join(reports, "browser.json"), "utf8"));
  for (const spec of suites.flatMap(specsIn)) {
    const results = spec.tests.flatMap((test) => test.results);
    slowest.push({ ms: Math.max(0, ...results.map(({ duration }) => duration)), title: `${spec.file}: ${spec.title}` });
    if (spec.tests.some(({ status }) => status === "flaky")) {
      console.log(`! passed only at the second try: ${spec.title}`);
      unsteady.push(`${spec.file}:${spec.line}`);
    }
  }
  return { passed: stats.expected + stats.flaky, failed: stats.unexpected };
}

function specsIn({ specs = [], suites = [] }) {
  return [...specs, ...suites.flatMap(specsIn)];
}

function seconds(ms) {
  return `${(ms / 1000).toFixed(1)} s`;
}
