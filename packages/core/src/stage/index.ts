export { type Feet, feetOf, footFrame, slides, steadySpeed, worstSlide } from "./feet";
export { bodyOf, boxesOf, frameOfState, moved, pointOf, type Standing } from "./figure";
export { STEPS_A_SECOND } from "./movement";
export { proposed, stageFor } from "./proposal";
export {
  effectAt,
  emptyLog,
  extraAt,
  type Log,
  type Rehearsal,
  rehearsalAtStart,
  rehearsed,
  rehearsedUntil,
  type Setting,
  settingOf,
  timeOfStep,
} from "./rehearsal";
export { guessedRoles, playables, type Roles } from "./roles";
