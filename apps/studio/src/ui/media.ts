import { useSyncExternalStore } from "react";

/** A media query as a store that components share; asked anew at every render, a browser would have to parse it each time. */
interface MediaStore {
  readonly subscribe: (changed: () => void) => () => void;
  readonly matches: () => boolean;
}

const stores = new Map<string, MediaStore>();

function storeOf(query: string): MediaStore {
  const known = stores.get(query);
  if (known) return known;
  const list = matchMedia(query);
  const store: MediaStore = {
    subscribe: (changed) => {
      list.addEventListener("change", changed);
      return () => list.removeEventListener("change", changed);
    },
    matches: () => list.matches,
  };
  stores.set(query, store);
  return store;
}

const NEVER: MediaStore = { subscribe: () => () => {}, matches: () => false };

/** Returns whether a media query matches, and re-renders when that changes. */
export function useMedia(query: string): boolean {
  const { subscribe, matches } = typeof matchMedia === "undefined" ? NEVER : storeOf(query);
  return useSyncExternalStore(subscribe, matches, NEVER.matches);
}
