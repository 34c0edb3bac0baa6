export { withNamesBecome } from "./behaviour-names";
export { type Naming, sourcesNamed, withSourceIds } from "./sources-named";
export { chosenAndGone, withClipsBecome, withRenamedAction } from "./walk";
