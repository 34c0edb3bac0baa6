export { assembled, hatched } from "./assemble";
