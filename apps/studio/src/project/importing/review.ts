/** Holds the proposals for a drop until a person accepts or cancels them. */

import type { Proposal } from "@caravan/core/intake";
import { create } from "zustand";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";
import { useOpenProject } from "../open-project";

/** `drop` is another number for every drop: what was chosen of one says nothing of the next. */
export const useReview = create<{ readonly proposals: readonly Proposal[] | null; readonly drop: number }>(() => ({
  proposals: null,
  drop: 0,
}));

function show(proposals: readonly Proposal[] | null): void {
  useReview.setState(({ drop }) => ({ proposals, drop: drop + 1 }));
}

/** What arrived during another review: it waits, instead of replacing that. */
const later: (readonly Proposal[])[] = [];

export function offer(proposals: readonly Proposal[]): void {
  if (useReview.getState().proposals) later.push(proposals);
  else show(proposals);
}

/** Ends the review that is shown; the next one that waits is shown then. */
export function endReview(): void {
  show(later.shift() ?? null);
}

/** Everything proposed and waiting. */
export function offered(): Proposal[] {
  return [...(useReview.getState().proposals ?? []), ...later.flat()];
}

/** Removes and returns what waits, for taking it along to another project. */
export function takeWaiting(): (readonly Proposal[])[] {
  return later.splice(0);
}

// What was matched to one project does not apply to another.
useOpenProject.subscribe((open, before) => {
  if (open.id === before.id) return;
  if (later.length > 0) say({ tone: "plain", text: t("What was dropped meanwhile was not imported: drop it again.") });
  later.length = 0;
  show(null);
});
