export type { ArtOf, LayerOfFile, TakenArt, TakenDescription, TakenItem, TakenPicture } from "./drop-contents";
export { fileOf } from "./drop-contents";
export { type ProposedAction, proposedActions } from "./facings";
export { framesAndClips } from "./frames-and-clips";
export { withoutEnding } from "./names";
export { describedBy, withoutLayers, withoutOthersRecords } from "./pairing";
export type { Choices, Proposal, ShownFrame } from "./proposal";
export { needsReview, proposalsFor, sheetsOf } from "./proposals";
export type { SeenGrid } from "./sheet";
