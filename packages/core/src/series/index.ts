export { findSeries, type Series, type Sorted } from "./series";
