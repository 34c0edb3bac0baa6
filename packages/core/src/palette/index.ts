export { colourDistance, oklabOf, oklchOf, rgbOfOklch } from "./oklab";
export { coloursIn, coloursInReadingOrder, nearlyEqual, ramps, touchingIn, type UsedColour } from "./ramps";
export { coloursInText, matchedByBrightness } from "./read";
export { type Recolouring, recoloured, recolouringOf } from "./recolour";
