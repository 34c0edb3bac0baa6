"use client";

import { type ReactNode, useDeferredValue } from "react";

/** What may appear a moment after the rest of a screen, so that making the screen never takes one long, blocking piece of work. */
export function Later({ children }: { children: ReactNode }) {
  return useDeferredValue(true, false) ? children : null;
}
