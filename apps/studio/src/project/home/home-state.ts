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
  /** Everything saved in the browser is also there. */
  | { readonly kind: "kept"; readonly at: number }
  | { readonly kind: "waiting" }
  /** The browser wants the person's leave first. */
  | { readonly kind: "locked" }
  /** Somebody else wrote the document: it is not overwritten. */
  | { readonly kind: "changed"; readonly outside: Outside }
  /** The document there is unreadable, for example in the middle of a merge. */
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
