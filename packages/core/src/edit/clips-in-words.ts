import { type ClipName, counted } from "../model";

/** Names clips in an undo label: "walk-e and walk-w", "8 clips". */
export function clipsInWords(names: readonly ClipName[]): string {
  return names.length <= 2 ? names.join(" and ") : counted(names.length, "clip");
}
