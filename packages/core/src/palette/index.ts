export { colourDistance, type Oklch, oklabOf, oklchOf, rgbOfOklch } from "./oklab";
export { coloursIn, nearlyEqual, ramps, type UsedColour } from "./ramps";
export { coloursInText, matchedByBrightness } from "./read";
export { type Recolouring, recoloured, recolouringOf } from "./recolour";
