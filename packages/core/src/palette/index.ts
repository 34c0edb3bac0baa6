export { colourDistance, oklabOf, oklchOf, rgbOfOklch } from "./oklab";
export { coloursIn, nearlyEqual, ramps } from "./ramps";
export { coloursInText, matchedByBrightness } from "./read";
export { type Recolouring, recoloured, recolouringOf } from "./recolour";
