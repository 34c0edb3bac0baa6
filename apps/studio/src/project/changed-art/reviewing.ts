/** State of the changed-art review on the screen. */
import type { Source } from "@caravan/core/model";
import { create } from "zustand";
import type { Begun } from "../begun";
import type { WayIn } from "./ways";

export interface ChangedArt {
  readonly before: Source;
  /** The file that it came in. */
  readonly file: string;
  /** The one that is proposed first. */
  readonly ways: readonly [WayIn, ...WayIn[]];
  /** The document that it was looked at in. */
  readonly work: Begun;
}

interface Reviewing {
  readonly art: ChangedArt | null;
  /** How many sources' new art waits behind it. */
  readonly more: number;
  /** Whether the user has accepted everything that waits. */
  readonly all: boolean;
}

export const useChangedArt = create<Reviewing>(() => ({ art: null, more: 0, all: false }));
