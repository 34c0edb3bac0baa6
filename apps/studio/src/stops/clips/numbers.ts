/** Labels of the fields for frames by number, by which keys find them. */
export const ADD_NUMBERS = "Frames by number";
export const NEW_BY_NUMBERS = "New clip of frames by number";
