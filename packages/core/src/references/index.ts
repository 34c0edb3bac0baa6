export { withNamesBecome } from "./behaviour-names";
export { chosenAndGone, withClipsBecome, withRenamedAction } from "./walk";
