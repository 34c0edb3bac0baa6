/** Files dropped before a project is open. Those dropped before the studio's code has come are kept by the page itself. */

import { sayTrouble } from "../../ui/notices";
import { t } from "../../ui/words";
import { takeInAndGo } from "../import-later";
import { type Drop, handedByDrop } from "./collect";

/** What the page has at hand (`shell/first-view/before-anything`). */
interface EarlyDrops {
  readonly drops: Drop[];
  /** From now on the studio listens itself. */
  over(): void;
}

/** Imports what was dropped as soon as a project is open, or opening has failed. To be called in the event itself. */
export async function takeInDrop(drop: Drop): Promise<void> {
  const files = await handedByDrop(drop);
  if (files.length > 0) await takeInAndGo(files);
  else sayTrouble(t("There is no file to import in what you dropped."));
}

/** Imports what was dropped before the studio's code had come, and ends the page's own listening. */
export async function takeInEarlyDrops(): Promise<void> {
  const { caravanEarly: early } = globalThis as { caravanEarly?: EarlyDrops };
  if (!early) return;
  early.over();
  for (const drop of early.drops.splice(0)) await takeInDrop(drop);
}
