/** What this browser remembers apart from its projects, so that a page knows it before any of them is read. */
import { remember } from "../../ui/remembered";

/** Set once a project was shown. */
export const BEEN = "caravan-been";
/** Set once the introduction was answered. */
export const MET = "caravan-met";
/** Day or dusk, if the person has chosen. */
export const THEME = "caravan theme";

/** Remembers that a project was shown. */
export function rememberBeing(): void {
  remember(BEEN, "yes");
}
