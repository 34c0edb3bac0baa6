/** What this browser remembers apart from projects, such as a theme. Where it is full, or forbids storing, that lasts until the page closes. */

/** Null if there is nothing; on the server too. Some browsers throw at the mere name of a forbidden storage. */
export function remembered(key: string): string | null {
  try {
    return globalThis.localStorage?.getItem(key) ?? null;
  } catch {
    return null;
  }
}

export function remember(key: string, value: string): void {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Full or forbidden.
  }
}
