export { similarNames } from "./similar-names";
