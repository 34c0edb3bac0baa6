import { useSyncExternalStore } from "react";

const DARK = "(prefers-color-scheme: dark)";
/** A person's system replaces all colours by a few of its own. */
const FORCED = "(forced-colors: active)";

/** Which colours hold now, as a text that changes with them: what is painted rather than styled is painted anew then. */
export function useThemeNow(): string {
  return useSyncExternalStore(onThemeChange, themeNow, () => "");
}

export function themeNow(): string {
  const own = document.documentElement.dataset.theme ?? (matchMedia(DARK).matches ? "dusk" : "day");
  return matchMedia(FORCED).matches ? `${own}, forced` : own;
}

/**
 * Calls back when a person chooses other colours, or the system does; the answer ends it. The query that is listened to is never asked:
 * asked between a change and its event, Chromium does not send the event.
 */
export function onThemeChange(changed: () => void): () => void {
  const chosen = new MutationObserver(changed);
  chosen.observe(document.documentElement, { attributeFilter: ["data-theme"] });
  const system = [matchMedia(DARK), matchMedia(FORCED)];
  for (const query of system) query.addEventListener("change", changed);
  return () => {
    chosen.disconnect();
    for (const query of system) query.removeEventListener("change", changed);
  };
}
