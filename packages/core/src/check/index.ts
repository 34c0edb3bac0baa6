export { type Finding, type FindingCode, findingsOf, type Place } from "./findings";
