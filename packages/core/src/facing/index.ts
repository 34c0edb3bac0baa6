export { angleOf, angleOfFacing, DEAD_BAND, facingToward, mirrorOf, nearestPresent, standIns, turnBetween, turnedBy } from "./angles";
export {
  type FacingName,
  facingOfName,
  facingOfWord,
  type MatchedAction,
  matchFacings,
  type NumberedFrom,
  roseFrom,
  waysFor,
} from "./names";
