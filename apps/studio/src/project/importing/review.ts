/** Holds the proposals for a drop until a person accepts or cancels them. */

import type { Proposal } from "@caravan/core/intake";
import { create } from "zustand";
import { inBackground } from "../../ui/in-background";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";
import { useOpenProject } from "../open-project";

/** `drop` is another number for every drop: what was chosen of one says nothing of the next. */
export const useReview = create<{ readonly proposals: readonly Proposal[] | null; readonly drop: number }>(() => ({
  proposals: null,
  drop: 0,
}));

interface Offer {
  readonly proposals: readonly Proposal[];
  readonly whenOver: (isDone: boolean) => void;
}

let shown: Offer | null = null;

function show(offer: Offer | null): void {
  shown = offer;
  useReview.setState(({ drop }) => ({ proposals: offer?.proposals ?? null, drop: drop + 1 }));
}

/** What arrived during another review: it waits, instead of replacing that. */
const later: Offer[] = [];

/**
 * Shows proposals, after any current review. Resolves when a person has decided and that is done; false if it failed, or if they were dropped
 * with their project.
 */
export function offer(proposals: readonly Proposal[]): Promise<boolean> {
  return new Promise((whenOver) => offerAgain([{ proposals, whenOver }]));
}

/** Ends the review that is shown; the next one that waits is shown then. What was decided is done when `work` is, if that gives true. */
export function endReview(work: Promise<boolean> = Promise.resolve(true)): void {
  const ended = shown;
  show(later.shift() ?? null);
  inBackground(
    work.then(ended?.whenOver, (error) => {
      ended?.whenOver(false);
      throw error;
    }),
  );
}

/** Everything proposed and waiting. */
export function offered(): Proposal[] {
  return [...(shown?.proposals ?? []), ...later.flatMap(({ proposals }) => proposals)];
}

/** Removes and returns what waits, for taking it along to another project, where it is offered again. */
export function takeWaiting(): Offer[] {
  return later.splice(0);
}

export function offerAgain(offers: readonly Offer[]): void {
  for (const each of offers) {
    if (shown) later.push(each);
    else show(each);
  }
}

// What was matched to one project does not apply to another.
useOpenProject.subscribe((open, before) => {
  if (open.id === before.id) return;
  if (later.length > 0) say({ tone: "plain", text: t("What was dropped meanwhile was not imported: drop it again.") });
  for (const { whenOver } of shown ? [shown, ...later] : later) whenOver(false);
  later.length = 0;
  show(null);
});
