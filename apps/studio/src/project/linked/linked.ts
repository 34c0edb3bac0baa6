/** The folder that the open project's art comes from, as it was last looked at. */
import type { SourceId } from "@caravan/core/model";
import { create } from "zustand";
import type { HandedFile } from "../importing/collect";

export interface LinkedFolder {
  readonly project: string;
  readonly name: string;
  /** The browser wants the person's leave again before it may be read. */
  readonly locked: boolean;
  /** How many sources have their art in it. */
  readonly matched: number;
  /** Files that fit a source equally well: until one is chosen, none is followed. */
  readonly unclear: ReadonlyMap<SourceId, readonly string[]>;
  /** Sources whose art or metadata there is another than the project's. */
  readonly changed: readonly SourceId[];
  /** Of these the ones whose metadata says something else now, with its path. */
  readonly described: ReadonlyMap<SourceId, string>;
  /** Pictures there that are no source yet. */
  readonly fresh: readonly HandedFile[];
  /** Texts that are called like one of these, and may describe it. */
  readonly texts: readonly HandedFile[];
  /** Files that have another name there now, by the project's paths of their pictures. */
  readonly renamed: ReadonlyMap<string, string>;
  /** Whether the project itself is kept there. */
  readonly home: boolean;
}

export const useLinkedFolder = create<{ readonly linked: LinkedFolder | null }>(() => ({ linked: null }));
