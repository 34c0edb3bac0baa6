export { angleOf, angleOfFacing, DEAD_BAND, facingToward, mirrorOf, nearestPresent, turnBetween, turnedBy } from "./angles";
export {
  facingOfName,
  facingOfWord,
  type MatchedAction,
  matchFacings,
  type NumberedFrom,
  roseFrom,
  waysFor,
  withFacingInName,
} from "./names";
