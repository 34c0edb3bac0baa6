export { findSeries, numberIn, type Series } from "./series";
