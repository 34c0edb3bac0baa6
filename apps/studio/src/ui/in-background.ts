import { sayTrouble } from "./notices";

/** Runs work in the background and reports its errors: nothing fails silently. */
export function inBackground(work: Promise<unknown>): void {
  work.catch(sayTrouble);
}
