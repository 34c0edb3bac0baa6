/** State of the folder that the open project is kept in; null if it is kept only in this browser. */
import type { Project } from "@caravan/core/model";
import { create } from "zustand";

/** A version of the document that somebody else wrote there. */
export interface Outside {
  readonly text: string;
  readonly theirs: Project;
  /** What both came from. */
  readonly base: Project;
}

export type HomeState =
  /** All that is saved in the browser is there, too. */
  | { readonly kind: "kept"; readonly at: number }
  | { readonly kind: "waiting" }
  /** The browser wants the person's leave first. */
  | { readonly kind: "locked" }
  /** Somebody else wrote the document: it is not written over. */
  | { readonly kind: "changed"; readonly outside: Outside }
  /** What stands there cannot be read, such as a merge that somebody is in the middle of. */
  | { readonly kind: "unreadable"; readonly reason: string }
  | { readonly kind: "gone" }
  | { readonly kind: "failed"; readonly reason: string };

export interface Home {
  readonly project: string;
  /** Name of the folder. */
  readonly folder: string;
  readonly state: HomeState;
}

export const useHome = create<{ readonly home: Home | null; readonly reviewing: boolean }>(() => ({ home: null, reviewing: false }));
