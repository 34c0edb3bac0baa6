export { Action, ActionName, FACINGS_OF, facingsPresent, Petal, Ways } from "./action";
export {
  Behaviour,
  BehaviourName,
  Condition,
  Input,
  type InputKind,
  Rule,
  Track,
  type TrackEntry,
} from "./behaviour";
export { Clearing, Colour, MOST_GROUNDS } from "./clearing";
export { Clip, ClipName, clipRules, PLAIN_LOOP, Step, USUAL_STEP } from "./clip";
export { counted } from "./counted";
export { readableJson } from "./damaged-text";
export {
  bakesParts,
  Counting,
  Delivery,
  Density,
  FileStem,
  OWN_NAMES,
  SheetLayout,
  USUAL_DELIVERY,
} from "./delivery";
export { checkDocument } from "./document-check";
export { CaravanError, type ErrorCode, unreachable, whyOf } from "./error";
export { FACINGS, Facing } from "./facing";
export { behavioursToFile } from "./file-behaviour";
export {
  commonArea,
  encloses,
  FramePoint,
  overlaps,
  type Px,
  Rect,
  Size,
  Spacing,
  sameRect,
  scaledSide,
  wholePx,
} from "./geometry";
export { groupedBy } from "./grouped";
export { jsonSchemaOf, projectJsonSchema } from "./json-schema";
export { BLENDS, Blend, checkedLayerName, isFigure, Layer, MOST_LAYERS } from "./layer";
export {
  BOX_USES,
  Box,
  type BoxUse,
  type ByShape,
  byShape,
  FIELD_OF_SHAPE,
  FrameMarks,
  FURTHEST_OUTLINE,
  LEAST_ISLAND,
  MARK_LINES,
  MARK_SHAPES,
  MarkKind,
  MarkName,
  MarkPoint,
  type MarkShape,
  Outline,
  type OutlineKind,
  STEADY_WAYS,
  type SteadyWay,
  Trace,
} from "./marks";
export { correctionsOf, isMeaning, MEANINGS, type Meaning } from "./meanings";
export { checkedName, fitFileName, fittedName, freeName, isFitName, Name, shortened } from "./name";
export { naturalOrder } from "./natural-order";
export { entriesOf, orderedCompactJson, orderedJson, orderedRecord, ownOf } from "./ordered-record";
export { Packing, USUAL_PACKING } from "./packing";
export { MOST_COLOURS, Palette } from "./palette";
export { MOST_PARTS, Part, StepPart, StepParts } from "./part";
export { Picture, PicturePath, SHA256 } from "./picture";
export { MOST_PICTURES, refuseTooMany } from "./picture-limit";
export {
  addTakenPaths,
  artStem,
  freePath,
  freePicturePaths,
  type GrowingPaths,
  isDeviceName,
  pathKey,
  pathStem,
  stemOf,
  takenPaths,
  withDistinctPaths,
} from "./picture-paths";
export { Flip, isFitCanvas, LARGEST_CANVAS, MOST_PIECES } from "./piece";
export {
  actionNamed,
  behaviourNamed,
  clipNamed,
  clipsByFrame,
  clipsOfAction,
  driveNamed,
  emptyProject,
  exampleNamed,
  findFrame,
  framesOfClips,
  keptFrames,
  keptRefs,
  markNamed,
  type PlacedFrame,
  Project,
  paletteNamed,
  partNamed,
  sourceById,
  stageNamed,
} from "./project";
export { ProjectFile, projectFromFile, projectToFile, uncheckedProject } from "./project-file";
export { ClipField, Example, FrameField, Reading } from "./reading";
export { salvaged } from "./salvage";
export {
  allPictures,
  Cut,
  drawnSize,
  Frame,
  FrameRef,
  frameName,
  frameRef,
  frameSize,
  GridCut,
  isFrameKey,
  isNumberedByFiles,
  isOfPieces,
  originOf,
  Piece,
  pictureOf,
  Source,
  SourceId,
  scaleOf,
  sheetOf,
  showsMostlyTheSame,
} from "./source";
export {
  type AccountRow,
  Area,
  Drive,
  Effect,
  Extra,
  Feeds,
  type Going,
  HitPair,
  KeyMoment,
  Movement,
  Stage,
  StageKey,
  StageName,
  Zone,
} from "./stage";
export { checkedDuration, LONGEST_STEP, type Micros, microsFromMs, msFromMicros, tickAt } from "./time";
export {
  type DataEntry,
  type DataValue,
  isDataValue,
  MOST_DATA,
  sameValue,
  textOfValue,
  valueFromText,
  valueIn,
} from "./user-data";
