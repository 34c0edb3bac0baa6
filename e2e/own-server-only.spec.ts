import { expect, test } from "./fixtures";
import { goTo, openStudio } from "./studio";

test("no request goes to another host, and no script but the app's own may run", async ({ page, baseURL }) => {
  const foreign: string[] = [];
  const refused: string[] = [];
  page.on("request", (request) => {
    const { protocol, origin } = new URL(request.url());
    if (protocol.startsWith("http") && origin !== baseURL) foreign.push(request.url());
  });
  page.on("console", (message) => {
    if (/Content Security Policy/.test(message.text())) refused.push(message.text());
  });
  const answer = await page.goto("/");
  const headers = answer?.headers() ?? {};
  expect(headers["content-security-policy"]).toContain("default-src 'self'");
  expect(headers["content-security-policy"]).toContain("'wasm-unsafe-eval'");
  expect(headers["content-security-policy"]).not.toContain("'unsafe-eval'");
  expect(headers["x-content-type-options"]).toBe("nosniff");
  expect(headers["referrer-policy"]).toBe("no-referrer");
  expect(headers["x-powered-by"]).toBeUndefined();
  await openStudio(page);
  for (const stop of ["Sources", "Clips", "Ship"] as const) await goTo(page, stop);
  await expect(page.getByTestId("proof")).toBeVisible();
  expect(foreign).toEqual([]);
  expect(refused).toEqual([]);
  // A script that was slipped in does not run.
  await page.evaluate(() => {
    const script = document.createElement("div");
    script.innerHTML = "<img src=x onerror=\"document.title='slipped in'\">";
    document.body.append(script);
  });
  await page.waitForTimeout(300);
  await expect(page).toHaveTitle(/Tamarisk/);
});
