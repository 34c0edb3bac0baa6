import { whyOf } from "@caravan/core/model";
import { create } from "zustand";

/** A notice. Problems stay until dismissed; others disappear by themselves. */
export interface Notice {
  readonly id: number;
  readonly tone: "plain" | "good" | "trouble";
  readonly text: string;
  readonly action?: { readonly label: string; readonly run: () => void };
}

export const useNotices = create<{ readonly notices: readonly Notice[] }>(() => ({ notices: [] }));

const SHOWN_FOR = 7000; // ms: time to read two lines and reach a button
const MOST = 4;

let count = 0;

export function say(notice: Omit<Notice, "id">): void {
  const id = ++count;
  useNotices.setState(({ notices }) => ({
    notices: withRoom([...notices.filter((each) => each.text !== notice.text), { ...notice, id }]),
  }));
  if (notice.tone !== "trouble") passing.add(id);
  restart();
}

/** Says what went wrong, in the error's own words. */
export function sayTrouble(error: unknown): void {
  say({ tone: "trouble", text: whyOf(error) });
}

/** Reports an error, if there is one; returns whether there was none. */
export function sayUnlessDone(problem: Error | string | null | undefined): boolean {
  if (problem) sayTrouble(problem);
  return !problem;
}

/** Those that go by themselves, the oldest first. */
const passing = new Set<number>();
let held = false;
let going: ReturnType<typeof setTimeout> | undefined;

/** The user points at them, perhaps to reach a button: none disappears meanwhile. */
export function holdNotices(): void {
  held = true;
  clearTimeout(going);
}

export function letNoticesGo(): void {
  held = false;
  restart();
}

function restart(): void {
  clearTimeout(going);
  if (held || passing.size === 0) return;
  going = setTimeout(() => {
    for (const id of [...passing]) dismiss(id);
  }, SHOWN_FOR);
}

/** Trouble is never pushed out by what came later: only a person sends it away. */
function withRoom(notices: readonly Notice[]): Notice[] {
  const others = notices.filter(({ tone }) => tone !== "trouble");
  const gone = new Set(others.slice(0, Math.max(0, others.length - MOST)));
  return notices.filter((each) => !gone.has(each));
}

export function dismiss(id: number): void {
  passing.delete(id);
  useNotices.setState(({ notices }) => ({ notices: notices.filter((notice) => notice.id !== id) }));
  // When the last one is gone there is nothing left to point at, and no event when the pointer leaves.
  if (useNotices.getState().notices.length === 0) held = false;
}
