/** What this browser remembers apart from its projects, so that a page knows it before any of them is read. */

/** Set once a project was shown. */
export const BEEN = "caravan-been";
/** Set once the introduction was answered. */
export const MET = "caravan-met";
/** Day or dusk, if the person has chosen. */
export const THEME = "caravan theme";

/** Remembers that a project was shown. */
export function rememberBeing(): void {
  try {
    localStorage.setItem(BEEN, "yes");
  } catch {
    // Full or forbidden: the next visit begins with the demo's picture once more.
  }
}
