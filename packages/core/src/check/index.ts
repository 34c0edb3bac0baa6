export type { Finding, FindingCode, Place } from "./finding";
export { findingsOf } from "./findings";
export { type FrameFinding, type FrameFindingCode, frameFindings } from "./frame-findings";
export { findRepeats, NO_REPEATS, type Repeats, type SeenFrame } from "./repeats";
