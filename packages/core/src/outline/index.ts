export { type Mask, maskOf } from "./mask";
export { areaOf, type Corner, distanceTo, isConvex, isInside, isSimple, type Polygon } from "./polygon";
export { type Traced, type Tracing, traced } from "./trace";
