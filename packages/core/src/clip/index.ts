export { areEven, evenShares, type Pace, paceOf, stretched } from "./durations";
export { parseRanges } from "./ranges";
