export { findSeries, type Series } from "./series";
