export { differenceInWords, differencesBetween } from "./differences";
export { mergeProjects } from "./merge";
