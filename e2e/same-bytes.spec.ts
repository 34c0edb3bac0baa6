import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { sha256Hex } from "@caravan/core/codec";
import { expect, test } from "./fixtures";
import { filesOf, goTo, openStudio } from "./studio";

const root = join(import.meta.dirname, "..");

test("the studio delivers the same bytes as the command line", async ({ page }) => {
  const out = mkdtempSync(join(tmpdir(), "caravan-build-"));
  execFileSync(process.execPath, [join(root, "packages/cli/bin/caravan.mjs"), "build", join(root, "examples/tamarisk-road"), "--out", out]);
  await openStudio(page);
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toContainText("395 frames in, 395 out");
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Deliver as ZIP" }).click()]);
  expect(download.suggestedFilename()).toBe("tamarisk.zip");
  const delivered = Object.fromEntries([...(await filesOf(download))].map(([path, bytes]) => [path, sha256Hex(bytes)]));
  const built = Object.fromEntries(
    readdirSync(out)
      .filter((path) => !path.startsWith("."))
      .map((path) => [path, sha256Hex(readFileSync(join(out, path)))]),
  );
  rmSync(out, { recursive: true });
  expect(delivered).toEqual(built);
});

test("packing settings change the pages, and the proof shows it", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Ship");
  await expect(page.getByText(/page 1 of 1/)).toBeVisible();
  await page.getByRole("button", { name: "Pages: up to 4096 …" }).click();
  await page.getByRole("textbox", { name: "Largest page side" }).fill("256");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/page 1 of [2-9]/)).toBeVisible();
  await page.getByRole("radio", { name: "Powers of two" }).click();
  await expect(page.getByText(/page 1 of \d · 256 × 256/)).toBeVisible();
  await expect(page.getByTestId("proof")).toContainText("every pixel the same");
  await page.getByRole("textbox", { name: "Largest page side" }).fill("32");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "Not delivered" })).toContainText("no page of at most 32 px a side can hold it");
});
