import { readText } from "@caravan/core/codec";
import { note } from "./output";

/** What a metadata file says, in whatever letters it is saved; says so if these were guessed. `where` names it. */
export function textIn(bytes: Uint8Array, where: string): string {
  const { text, guessed } = readText(bytes);
  if (guessed !== null) noteGuessed(where, guessed);
  return text;
}

/** `letters` in words. */
export function noteGuessed(where: string, letters: string): void {
  note(`${where}: It is not in UTF-8: its letters are read as ${letters}. If names look wrong, save it in UTF-8.`);
}
