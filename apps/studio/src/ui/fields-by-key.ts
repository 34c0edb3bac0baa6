/** Identifies fields that keys and menus focus, by purpose and never by label. */

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
