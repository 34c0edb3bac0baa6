export { areEven, evenShares, type Pace, paceOf, stretched } from "./durations";
export { type ClipRules, type StepOrder, stepOrder } from "./order";
export { parseRanges } from "./ranges";
export { type Entry, type PlayedAt, playedAt, type Shown, type Span, type Timeline, timelineOf } from "./timeline";
