import { sayTrouble } from "./notices";

/** Lets work go on by itself. What goes wrong with it is said: nothing that was begun fails in silence. */
export function inBackground(work: Promise<unknown>): void {
  work.catch(sayTrouble);
}
