export { type Finding, type FindingCode, findingsOf, type Place } from "./findings";
export { type FrameFinding, type FrameFindingCode, frameFindings } from "./frame-findings";
export { findRepeats, NO_REPEATS, type Repeats, type SeenFrame } from "./repeats";
