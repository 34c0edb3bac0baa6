/** Keeps tabs of this browser out of each other's way: one owner per project, the others look on until they take over. */

export type TabMessage =
  | { readonly kind: "saved"; readonly id: string }
  /** Asks the owner to write everything and let go. */
  | { readonly kind: "hand-over"; readonly id: string };

const channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("caravan");

export function tellTabs(message: TabMessage): void {
  channel?.postMessage(message);
}

export function onTabMessage(hear: (message: TabMessage) => void): () => void {
  const listen = (event: MessageEvent<TabMessage>) => hear(event.data);
  channel?.addEventListener("message", listen);
  return () => channel?.removeEventListener("message", listen);
}

/** Held as long as this tab owns a project. */
export interface Ownership {
  release(): void;
}

const lockName = (id: string) => `caravan project ${id}`;

/**
 * Becomes the project's owner if nobody is; else returns null. `onLost` is called if another tab takes over by force.
 * Where the browser has no locks, every tab is an owner.
 */
export function tryToOwn(id: string, onLost: () => void): Promise<Ownership | null> {
  return request(id, { ifAvailable: true }, onLost);
}

/** Becomes the owner as soon as the present one lets go; if it does not within `patience` ms, by force. */
export async function takeOver(id: string, onLost: () => void, patience = 1500): Promise<Ownership> {
  tellTabs({ kind: "hand-over", id });
  const deadline = Date.now() + patience;
  while (Date.now() < deadline) {
    const owned = await tryToOwn(id, onLost);
    if (owned) return owned;
    await new Promise((wake) => setTimeout(wake, 50));
  }
  return (await request(id, { steal: true }, onLost)) as Ownership;
}

function request(id: string, options: LockOptions, onLost: () => void): Promise<Ownership | null> {
  if (!navigator.locks) return Promise.resolve({ release() {} });
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
