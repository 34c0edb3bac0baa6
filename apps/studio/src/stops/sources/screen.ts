export { Details } from "./details";
export { List } from "./list";
export { Surface } from "./surface";
