/** Remembers in this browser which parts of details and lists are folded. */
import { create } from "zustand";
import { remember, remembered } from "./remembered";

const KEY = "caravan-folded";

const useParts = create<{ readonly parts: ReadonlySet<string> }>(() => ({ parts: new Set(stored()) }));

export function useFolded(part: string): boolean {
  return useParts(({ parts }) => parts.has(part));
}

export function useFoldedParts(): ReadonlySet<string> {
  return useParts(({ parts }) => parts);
}

export function fold(part: string, folded: boolean): void {
  const parts = new Set(useParts.getState().parts);
  if (folded) parts.add(part);
  else parts.delete(part);
  useParts.setState({ parts });
  remember(KEY, JSON.stringify([...parts]));
}

function stored(): string[] {
  try {
    const parts: unknown = JSON.parse(remembered(KEY) ?? "[]");
    return Array.isArray(parts) ? parts.filter((each) => typeof each === "string") : [];
  } catch {
    return [];
  }
}
