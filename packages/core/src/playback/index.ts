export { type StepOrder, stepOrder } from "./order";
export { AT_START, advanced, isOver, movedTo, type Playhead, passed, timeAt } from "./playhead";
export { type Entry, playedAt, type Timeline, timelineOf } from "./timeline";
