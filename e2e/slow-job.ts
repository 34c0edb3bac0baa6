import type { Page } from "./fixtures";

/** From now until the page is loaded again, each worker job of this name begins later, so that a test can act while it is awaited. */
export async function slowJob(page: Page, job: string, ms: number): Promise<void> {
  await page.evaluate(
    ([name, wait]) => {
      const { postMessage } = Worker.prototype;
      Worker.prototype.postMessage = function (this: Worker, ...told: unknown[]) {
        const { argumentList = [] } = told[0] as { argumentList?: { value: unknown }[] };
        if (argumentList.some(({ value }) => value === name)) setTimeout(() => Reflect.apply(postMessage, this, told), wait);
        else Reflect.apply(postMessage, this, told);
      };
    },
    [job, ms] as const,
  );
}
