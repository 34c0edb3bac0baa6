import type { Page } from "./fixtures";

/** From the next load on, each worker job of this name begins later, so that a test can act while it is awaited. */
export async function slowJob(page: Page, job: string, ms: number): Promise<void> {
  await page.addInitScript(
    ([name, wait]) => {
      const { postMessage } = Worker.prototype;
      Worker.prototype.postMessage = function (this: Worker, ...told: unknown[]) {
        const { argumentList = [] } = told[0] as { argumentList?: { value: unknown }[] };
        setTimeout(() => Reflect.apply(postMessage, this, told), argumentList.some(({ value }) => value === name) ? wait : 0);
      };
    },
    [job, ms] as const,
  );
}
