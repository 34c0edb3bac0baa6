export { mergeProjects } from "./merge";
