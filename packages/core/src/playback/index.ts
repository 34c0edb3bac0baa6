export { type ClipRules, type StepOrder, stepOrder } from "./order";
export { AT_START, advanced, isOver, movedTo, type Playhead, passed, timeAt } from "./playhead";
export { type Entry, type PlayedAt, playedAt, type Shown, type Span, type Timeline, timelineOf } from "./timeline";
