import { say } from "./notices";

/** Lets work go on by itself. What goes wrong with it is said: nothing that was begun fails in silence. */
export function inBackground(work: Promise<unknown>): void {
  work.catch((error: unknown) => say({ tone: "trouble", text: error instanceof Error ? error.message : String(error) }));
}
