/** Messages between the studio and The Crossing, which plays a delivery in its own tab. */
import type { NamedFile } from "@caravan/core/codec";

/** Which delivery of which project; survives a reload of either tab. */
export interface Played {
  readonly project: string;
  readonly delivery: string;
}

export type Message =
  /** The game asks for the current delivery. */
  | { readonly kind: "ask"; readonly played: Played }
  /** The studio hands it over: at once, and again after every build. */
  | { readonly kind: "files"; readonly played: Played; readonly files: readonly NamedFile[] }
  /** It cannot be built; why, in words. */
  | { readonly kind: "failed"; readonly played: Played; readonly why: string };

export function openChannel(): BroadcastChannel {
  return new BroadcastChannel("caravan crossing");
}

export function isSame(a: Played, b: Played): boolean {
  return a.project === b.project && a.delivery === b.delivery;
}

export function crossingAddress({ project, delivery }: Played): string {
  return `/crossing?${new URLSearchParams({ project, delivery })}`;
}
