export { addAction, mirrorMissing, removeAction, renameAction, setPetal, setWays } from "./actions";
export { type Arrival, type ArrivedAction, actionToBe, addSources, sourceToBe, takeIn, withArrivedActions } from "./add-sources";
export { hasOtherTimes, withAnimationFollowed } from "./animation-times";
export { type ArrivedClip, type ArrivedClips, noArrivedClips } from "./arrived-clips";
export {
  addInput,
  addRule,
  duplicateRule,
  moveRule,
  type RuleChange,
  removeBehaviour,
  removeInput,
  removeRule,
  renameBehaviour,
  renameInput,
  renameRule,
  setInput,
  setRule,
} from "./behaviours";
export { drawFrames, type Meeting, makeEqual, placeFrames, removeFrames } from "./by-hand";
export { cutByMetadata, refreshByMetadata } from "./by-metadata";
export { type ChangedPicture, isSameArt, type StoredPicture, sourceWithArt, withOtherStills } from "./changed-art";
export {
  duplicateSteps,
  joinClips,
  mergeEqualSteps,
  partByRows,
  pasteSteps,
  removeFrameEverywhere,
  reverseSomeSteps,
  rowsOfClip,
  splitClip,
} from "./clip-parts";
export {
  addClip,
  type ClipRulesChange,
  duplicateClip,
  insertSteps,
  moveSteps,
  nameForClip,
  removeClip,
  removeSteps,
  renameClip,
  reverseSteps,
  setClipRules,
} from "./clips";
export { type ClipNews, clipsToAdd, withClipsAsTold } from "./clips-as-told";
export { clipsOfRows, framesByNames, makeActionsByNames, type NamedRow } from "./clips-of-rows";
export { cutSource, refreshSource, setClearing } from "./cutting";
export { type DataPlaces, removeData, renameData, setData } from "./data";
export { addDelivery, type DeliveryChange, freeDeliveryName, removeDelivery, setDelivery } from "./deliveries";
export { type EarlierCuts, framesLost, type LostFrame, recipeOf, stillLost } from "./earlier-cuts";
export type { Edit } from "./edit";
export { setEventValue, setStepEvents } from "./events";
export { assignField, deliverLike, forgetExample } from "./examples";
export { dropFrames, keepFirstOf, renameFrame, restoreFrames } from "./frames";
export { framesToMirror, freezeMirror, type MirroredPicture } from "./freeze-mirror";
export { framesToPart, putTogetherFromTiles } from "./from-tiles";
export { addLayer, blendLayer, moveLayer, type NewLayer, removeLayer, renameLayer, setLayerClearing, sourceWithLayer } from "./layers";
export {
  actionOfRows,
  addsFacings,
  facingsInRows,
  makeActions,
  mirroredRows,
  mirrorInstead,
  type RowFacing,
  rowsAsFacings,
  rowsOfSource,
} from "./making-actions";
export { addMarkKind, removeMarkKind, renameMarkKind, setBoxUse, setMarkLook } from "./mark-kinds";
export { addBox, boxesOf, changeBox, clearMarks, copyMarks, putPoint, removeBox, setBoxes, turnPoint } from "./marks";
export { clipAcross, copyMarksMirrored, fillPoint } from "./marks-along";
export { forgetOrigins, nudgeOrigins, placeOrigins, setSourceOrigin, steadyClip } from "./origins";
export { setOutlines, setTrace, steadyOutline } from "./outlines";
export { addPalette, alsoTaken, removePalette, renamePalette, setPaletteColours, setPaletteOf } from "./palettes";
export { attachPart, movePart, removePart, renamePart, setPart, setStepPart } from "./parts";
export { followFiles, layPictures } from "./picture-places";
export {
  addFrameOfPieces,
  addPiecesSource,
  colourEverywhere,
  colourPieces,
  exchangeEverywhere,
  exchangePieces,
  flipPieces,
  groupPieces,
  hidePieces,
  mergePieces,
  mirrorPieces,
  moveEverywhere,
  movePieces,
  placeInStack,
  putPieces,
  removePieces,
  restackPieces,
  setCanvas,
  ungroupPieces,
  usesOfPiece,
  usesOfPieces,
  withGroups,
} from "./pieces";
export { renameProject } from "./project";
export { isDrawnAlike, percentOf, takeResizedArt, timesAsLarge } from "./resized-art";
export { restoreCut } from "./restore-cut";
export { scaledTogether, setPixelsPerUnit, setSourceScale } from "./scale";
export { copyEvents, moveClips, removeClips, renameClips, setDurationsInTurn, setFpsOfClips, setRulesOfClips } from "./several-clips";
export { addSourceVariant, drawAlike, setSourcePalette } from "./source-palette";
export { removeSource, renameSource } from "./sources";
export { placesRestacked, type Restacking } from "./stacking";
export {
  addRehearsal,
  addStage,
  keepDrive,
  removeDrive,
  removeStage,
  renameStage,
  type StageChange,
  setDrive,
  setStage,
} from "./stages";
export { addToSteps, holdUntil, moveBorder, scaleSteps, spreadOverSteps } from "./step-times";
export { evenOut, setClipFps, setClipTotal, setStepDurations } from "./times";
export type { ToldOfSource } from "./told-of-source";
export { moveFrames, nameFrames, namesByPattern, orderFrames, type TrayOrder } from "./tray";
export { turnAction } from "./turn-action";
export { addVariants, clipsAlike, clipsToDress } from "./variants";
