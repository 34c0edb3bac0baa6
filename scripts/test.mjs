// npm test: every check there is, in the order in which they fail fastest; ends with one line "N passed, N failed".
import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { installBrowser, installPackages } from "./install.mjs";

const root = join(import.meta.dirname, "..");
const reports = join(root, ".test");
const total = { passed: 0, failed: 0 };

installPackages();
const chromium = installBrowser();
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });
// What an earlier build left of route types would be checked too.
rmSync(join(root, "apps/studio/.next/types"), { recursive: true, force: true });

const node = (script, ...args) => run(process.execPath, [join(root, script), ...args]);

check("Types", () => node("scripts/check-types.mjs"));
check("Lint", () => node("node_modules/@biomejs/biome/bin/biome", "check", "--error-on-warnings", "."));
check("Import rules", () =>
  node("node_modules/dependency-cruiser/bin/dependency-cruise.mjs", "--config", "scripts/import-rules.cjs", "packages", "apps"),
);
check("The command line builds", () => node("scripts/build-command.mjs"));
suite(
  "Unit tests",
  () => node("node_modules/vitest/vitest.mjs", "run", "--reporter=dot", "--reporter=json", `--outputFile=${join(reports, "unit.json")}`),
  unitCounts,
);
const built = check("The studio builds", () => node("scripts/build-studio.mjs"));
if (built)
  suite("Browser tests", () => node("node_modules/@playwright/test/cli.js", "test", "--config", "e2e/playwright.config.ts"), browserCounts);

console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exitCode = total.failed === 0 ? 0 : 1;

function run(command, args) {
  const env = { ...process.env, CHROMIUM: chromium, NEXT_TELEMETRY_DISABLED: "1", CARAVAN_REPORTS: reports, CI: "1" };
  return spawnSync(command, args, { cwd: root, stdio: "inherit", env }).status === 0;
}

/** One thing that passes or fails as a whole. */
function check(name, work) {
  console.log(`\n— ${name}`);
  const passed = work();
  total[passed ? "passed" : "failed"]++;
  if (!passed) console.log(`✗ ${name} failed`);
  return passed;
}

/** Many tests with a report. A run that leaves none, or fails without a failed test, counts as one failure. */
function suite(name, work, countsOf) {
  console.log(`\n— ${name}`);
  const passed = work();
  let counts = { passed: 0, failed: 0 };
  try {
    counts = countsOf();
  } catch {
    console.log(`✗ ${name} left no report`);
  }
  total.passed += counts.passed;
  total.failed += counts.failed;
  if (!passed && counts.failed === 0) total.failed++;
  console.log(`${counts.passed} passed, ${counts.failed} failed`);
}

function unitCounts() {
  const report = JSON.parse(readFileSync(join(reports, "unit.json"), "utf8"));
  return { passed: report.numPassedTests, failed: report.numFailedTests };
}

function browserCounts() {
  const { stats, suites } = JSON.parse(readFileSync(join(reports, "browser.json"), "utf8"));
  for (const title of suites.flatMap(flakyTitles)) console.log(`! passed only at the second try, to be looked into: ${title}`);
  return { passed: stats.expected + stats.flaky, failed: stats.unexpected };
}

/** Titles of a suite's tests that failed once and then passed. */
function flakyTitles({ specs = [], suites = [] }) {
  const own = specs.filter(({ tests }) => tests.some(({ status }) => status === "flaky")).map(({ title }) => title);
  return [...own, ...suites.flatMap(flakyTitles)];
}
