export { type Account, accountOf, type PassedStep } from "./account";
export { programOf } from "./program";
export { frameShown, type ShownNow, shownIn } from "./shown";
export { checkedTrack } from "./track";
