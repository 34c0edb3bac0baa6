export {
  addClip,
  type ClipRulesChange,
  duplicateClip,
  insertSteps,
  moveClip,
  moveSteps,
  nameForClip,
  removeClip,
  removeSteps,
  renameClip,
  reverseSteps,
  setClipRules,
  USUAL_STEP,
} from "./clips";
export { applyChanges, type Change, differenceBetween } from "./difference";
export { counted, type Edit } from "./edit";
export { dropFrames, renameFrame, restoreFrames } from "./frames";
export { type DeliveryChange, renameProject, setDelivery } from "./project";
export { type ArrivedPicture, addSources, cutSource, refreshSource, removeSource, renameSource, setSourceOrigin } from "./sources";
export { evenOut, setClipFps, setClipTotal, setStepDurations } from "./times";
