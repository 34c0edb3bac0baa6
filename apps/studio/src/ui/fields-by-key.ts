/** Names of fields that a key or a menu goes to: by what they are, never by the words that stand beside them. */

export const FIELDS = {
  columns: "field-columns",
  cellWidth: "field-cell-width",
  fps: "field-fps",
  stepTimes: "field-step-times",
  moreFrames: "field-more-frames",
  clipOfFrames: "field-clip-of-frames",
  clipName: "field-clip-name",
  frameName: "field-frame-name",
  sourceName: "field-source-name",
} as const;

/** Puts the keyboard into a field, if it is on the screen. */
export function goToField(name: keyof typeof FIELDS): void {
  document.getElementById(FIELDS[name])?.focus();
}
