export { NOTHING_SEEN, type SeenArt } from "./art-findings";
export { type Finding, type FindingCode, mendsOf, type Place } from "./finding";
export { findingsOf } from "./findings";
export { type FrameFinding, type FrameFindingCode, frameFindings } from "./frame-findings";
export { allMended, isMendable, mended } from "./mend";
export { kindFindings, outlineFindings, type SeenOutlines } from "./outline-findings";
export { brokenParts } from "./part-findings";
export { findRepeats, type Repeats } from "./repeats";
export { stoppingFinding } from "./stopping";
