import { readText } from "@caravan/core/codec";
import { note } from "./output";

/** What a metadata file says, in whatever letters it is saved; says so if these were guessed. `where` names it. */
export function textIn(bytes: Uint8Array, where: string): string {
  const { text, isGuessed } = readText(bytes);
  if (isGuessed) noteGuessed(where);
  return text;
}

export function noteGuessed(where: string): void {
  note(`${where}: It is not in UTF-8: its letters are read as Western European. If names look wrong, save it in UTF-8.`);
}
