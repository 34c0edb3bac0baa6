export { type ClipsBecome, chosenAndGone, withClipsBecome, withRenamedAction } from "./walk";
