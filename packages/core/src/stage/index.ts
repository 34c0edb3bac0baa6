export { bodyOf, moved } from "./body";
export { effectAt, extraAt } from "./effects";
export { type Feet, feetOf, footFrame, slides, steadySpeed, worstSlide } from "./feet";
export { boxesOf, frameOfState, hangingOnState, outlinesOf, pointOf, type Standing } from "./figure";
export { STEPS_A_SECOND } from "./movement";
export { proposed, stageFor } from "./proposal";
export {
  emptyLog,
  type Log,
  type Rehearsal,
  rehearsalAtStart,
  rehearsed,
  rehearsedUntil,
  timeOfStep,
} from "./rehearsal";
export { guessedRoles, playables, type Roles } from "./roles";
export { type Setting, settingOf } from "./setting";
export { type Walk, type WalkingClip, walkingClip, walkKey, walkOf } from "./walk";
