/** Coordinates this browser's tabs: each project has one owner; other tabs are read-only until they take over. */
import { CaravanError } from "@caravan/core/model";
import { t } from "../ui/words";
import { freshId } from "./fresh-id";

export type TabMessage =
  | { readonly kind: "saved"; readonly id: string }
  /** Asks the owner to write everything and let go. */
  | { readonly kind: "hand-over"; readonly id: string }
  /** The owner is at it and needs a moment. */
  | { readonly kind: "handing"; readonly id: string }
  /** The owner cannot write and keeps the project, so that nothing is lost. */
  | { readonly kind: "kept"; readonly id: string; readonly why: string };

/** This page, as projects name their owner. */
export const THIS_TAB: string = freshId();

const channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("caravan");

export function tellTabs(message: TabMessage): void {
  channel?.postMessage(message);
}

export function onTabMessage(hear: (message: TabMessage) => void): () => void {
  const listen = (event: MessageEvent<TabMessage>) => hear(event.data);
  channel?.addEventListener("message", listen);
  return () => channel?.removeEventListener("message", listen);
}

const TAB_LOCK = "caravan tab";

/** Shows other tabs that this one is open. */
export function standAsTab(): void {
  globalThis.navigator?.locks?.request(TAB_LOCK, { mode: "shared" }, () => new Promise(() => {})).catch(() => {});
}

/** Whether no other tab of the studio is open in this browser. False where that cannot be known. */
export async function isOnlyTab(): Promise<boolean> {
  const { held = [] } = (await globalThis.navigator?.locks?.query()) ?? {};
  return held.filter(({ name }) => name === TAB_LOCK).length === 1;
}

/** Held as long as this tab owns a project. */
export interface Ownership {
  release(): void;
}

const lockName = (id: string) => `caravan project ${id}`;

/**
 * Becomes the project's owner if there is none; otherwise returns null. `onLost` is called if another tab takes over by force. In a browser
 * without locks, every tab is an owner.
 */
export function tryToOwn(id: string, onLost: () => void): Promise<Ownership | null> {
  return request(id, { ifAvailable: true }, onLost);
}

/** How long an owner may take after saying that it is busy saving. */
const PATIENCE_WITH_BUSY = 15_000; // ms

/**
 * Becomes the owner as soon as the present one lets go; if it does not answer within `patience` ms, by force. Throws `not-stored` if the
 * owner has changes that it cannot save.
 */
export async function takeOver(id: string, onLost: () => void, patience = 1500): Promise<Ownership> {
  let deadline = Date.now() + patience;
  let refused: string | null = null;
  const stop = onTabMessage((message) => {
    if (message.id !== id) return;
    if (message.kind === "handing") deadline = Date.now() + PATIENCE_WITH_BUSY;
    if (message.kind === "kept") refused = message.why;
  });
  try {
    tellTabs({ kind: "hand-over", id });
    while (Date.now() < deadline && refused === null) {
      const owned = await tryToOwn(id, onLost);
      if (owned) return owned;
      await new Promise((wake) => setTimeout(wake, 50));
    }
  } finally {
    stop();
  }
  if (refused !== null)
    throw new CaravanError(
      "not-stored",
      t("the other tab"),
      t("It has changes that it could not save: {refused}", { refused }),
      t("Go there and save the project to a file first."),
    );
  return (await request(id, { steal: true }, onLost)) as Ownership;
}

/**
 * Does something to a project that no other tab may have open meanwhile. Throws `read-only` if one has. `name` is the project's, for the
 * error.
 */
export async function whileNobodyElseOwns<Value>(id: string, name: string, work: () => Promise<Value>): Promise<Value> {
  const owned = await tryToOwn(id, () => {});
  if (!owned) throw new CaravanError("read-only", name, t("It is open in another tab."), t("Close it there, or do it in that tab."));
  try {
    return await work();
  } finally {
    owned.release();
  }
}

function request(id: string, options: LockOptions, onLost: () => void): Promise<Ownership | null> {
  if (!globalThis.navigator?.locks) return Promise.resolve({ release() {} });
  return new Promise((answer) => {
    let released = false;
    navigator.locks
      .request(lockName(id), options, (lock) => {
        if (!lock) {
          answer(null);
          return;
        }
        return new Promise<void>((end) => {
          answer({
            release() {
              released = true;
              end();
            },
          });
        });
      })
      .catch(() => {
        // The only way out of a held lock that we did not release is that another tab took it.
        if (!released) onLost();
      });
  });
}
