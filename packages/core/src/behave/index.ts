export { firstUnmet, isKept, ownTime } from "./look";
export { type Cast, type Given, isMoment, type Program, type Row, type Rules } from "./program";
export { entriesUntil, type Run, runFromStart, runGiven, runUntil } from "./run";
export type { Current, State } from "./state";
