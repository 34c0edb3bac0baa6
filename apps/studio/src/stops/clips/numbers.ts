/** Labels of the fields for typing frame numbers, which keys use to find them. */
export const ADD_NUMBERS = "Frames by number";
export const NEW_BY_NUMBERS = "New clip of frames by number";
