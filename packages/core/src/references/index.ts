export { chosenAndGone, withClipsBecome, withRenamedAction } from "./walk";
