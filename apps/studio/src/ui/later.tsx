"use client";

import { type ReactNode, useDeferredValue } from "react";

/** Mounts children a moment after the rest of a screen, so that no screen takes one long, blocking piece of work. */
export function Later({ children }: { children: ReactNode }) {
  return useDeferredValue(true, false) ? children : null;
}
