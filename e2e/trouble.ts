/** What befalls a browser while someone works: the tab is killed, storage is full. */
import type { BrowserContext, Page } from "./fixtures";

/** Ends the tab's process without any warning to the page. */
export async function crash(context: BrowserContext, page: Page): Promise<void> {
  const session = await context.newCDPSession(page);
  void session.send("Page.crash").catch(() => {});
  await page.waitForEvent("crash");
}

/** Makes storage refuse everything from a given moment, or for `only` one store, or all `but` one. Call it before the page opens. */
export async function storageWithEnd(
  page: Page,
  stores: { readonly only?: string; readonly but?: string } = {},
): Promise<{ fills(): Promise<void>; empties(): Promise<void> }> {
  await page.addInitScript(({ only, but }) => {
    const put = IDBObjectStore.prototype.put;
    const room = { full: false };
    Object.assign(globalThis, { room });
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...args: Parameters<typeof put>) {
      if (room.full && this.name !== but && (only === undefined || this.name === only))
        throw new DOMException("No room.", "QuotaExceededError");
      return put.apply(this, args);
    } as typeof put;
  }, stores);
  const become = (full: boolean) =>
    page.evaluate((now) => Object.assign((globalThis as unknown as { room: object }).room, { full: now }), full);
  return { fills: () => become(true).then(() => {}), empties: () => become(false).then(() => {}) };
}
