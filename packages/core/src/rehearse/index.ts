export { accountOf } from "./account";
export { type Bar, barsOf, type Comparison, compared } from "./compare";
export { plays, programOf } from "./program";
export { shownIn } from "./shown";
export { canHold, deliverableBehaviours, soundBehaviour } from "./sound";
export { checkedTrack } from "./track";
export {
  conditionInWords,
  inputInWords,
  keepInWords,
  restInWords,
  rowInWords,
  ruleInWords,
  timeInWords,
  whenInWords,
} from "./words";
