export { convexParts, hullOf } from "./convex";
export { maskOf, type PlacedMask } from "./mask";
export { areaOf, isSimple, withoutIdle } from "./polygon";
export { flattenedMask, grownMask, steadyMask } from "./shape";
export { type Traced, type Tracing, traced } from "./trace";
