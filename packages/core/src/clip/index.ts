export { areEven, evenShares, paceOf, stretched } from "./durations";
export { parseRanges } from "./ranges";
