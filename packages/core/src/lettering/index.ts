export { fittingText, LETTER, letter, letteringWidth } from "./lettering";
