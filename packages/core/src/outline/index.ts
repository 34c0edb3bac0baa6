export { hullOf } from "./convex";
export { type Mask, maskOf, type PlacedMask } from "./mask";
export { areaOf, type Corner, distanceTo, isConvex, isInside, isSimple, type Polygon, withoutIdle } from "./polygon";
export { flattenedMask, grownMask, steadyMask } from "./shape";
export { type Traced, type Tracing, traced } from "./trace";
