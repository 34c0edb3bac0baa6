export { firstUnmet, type Hearing, isKept, ownTime } from "./look";
export { type Cast, type Given, isMoment, type Program, type Row, type Rules } from "./program";
export { type Run, runFromStart, runGiven, runTold, runUntil } from "./run";
export type { Current, State } from "./state";
