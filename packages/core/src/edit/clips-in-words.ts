import { type ClipName, counted } from "../model";
import { t } from "../words";

/** Names clips in an undo label: "walk-e and walk-w", "8 clips". */
export function clipsInWords(names: readonly ClipName[]): string {
  const [one = "", other] = names;
  if (names.length > 2) return counted(names.length, "clip");
  return other === undefined ? one : t("{one} and {other}", { one, other });
}
