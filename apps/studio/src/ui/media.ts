import { useSyncExternalStore } from "react";

/** Whether a media query holds now; drawn again when that changes. */
export function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = matchMedia(query);
      list.addEventListener("change", changed);
      return () => list.removeEventListener("change", changed);
    },
    () => matchMedia(query).matches,
    () => false,
  );
}
