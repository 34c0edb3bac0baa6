export { applyChanges, type Change, differenceBetween } from "./difference";
