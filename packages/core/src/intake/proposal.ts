/** A proposal for one incoming thing, and the choices a person has about it. */
import type { Arrival, ArrivedClip, ToldOfSource } from "../edit";
import type { Unplaced } from "../metadata";
import type { Blend, Clearing, Cut, Frame, Rect, SourceId } from "../model";
import type { Ground } from "../raster";
import type { TakenDescription, TakenPicture } from "./drop-contents";

/** A future frame, shown before anything exists. */
export interface ShownFrame {
  readonly sha256: string;
  readonly clearing?: Clearing;
  readonly rect: Rect;
  readonly turned?: Frame["turned"] | false;
}

/** A clip that is to be. */
export interface ProposedClip extends ArrivedClip {
  readonly ref: string;
  readonly shows: readonly ShownFrame[];
}

/** What becomes of a sheet: cut later, one frame, cells, cells with a clip for each row, or its rows the facings of one action. */
export type SheetCut = "later" | "whole" | "cells" | "rows" | "facings";

export interface Choices {
  readonly include: boolean;
  readonly clear: boolean;
  readonly clips: boolean;
  /** A series as sheets of their own; groups of layers as the layers in them. */
  readonly apart: boolean;
  /** Pictures that become layers instead of sources. */
  readonly layers: boolean;
  readonly cut: SheetCut;
  /** Whether it replaces the art of the source with its name. */
  readonly replaces: boolean;
}

/** A layer that is to be; its pictures in the order of those below. */
export interface ProposedLayer {
  readonly name: string;
  readonly blend: Blend;
  readonly pictures: readonly TakenPicture[];
}

/** A picture of a proposal: just read, or a source's. */
export type ShownPicture = Pick<TakenPicture, "sha256" | "width" | "height">;

export interface Proposal {
  readonly id: string;
  readonly name: string;
  readonly what: string;
  /** What is unusual about it and worth knowing. */
  readonly notes: readonly string[];
  /** Pictures to show of it: the first, or some along it. */
  readonly shows: readonly ShownPicture[];
  readonly kind: "sheet" | "series" | "animation" | "layers" | "described" | "recut";
  readonly ground: Ground | null;
  /** What it would do to the source that is there, in words. */
  readonly outcome?: string;
  /** The default choice. */
  readonly usual: Choices;
  /** What can be imported as one or apart, with words for both. */
  readonly parting?: { readonly whole: string; readonly apart: string };
  /** What of it can be layers of one source, or sources of their own, in words for both. */
  readonly layering?: { readonly whole: string; readonly apart: string };
  /** Its layers. */
  readonly layers?: readonly ProposedLayer[];
  /** What can become of a sheet, in words. */
  readonly cuts?: readonly (readonly [cut: SheetCut, words: string])[];
  /** The source that it may be new art of. */
  readonly known?: KnownSource;
  /** Records of its metadata file that do not fit, and why. */
  readonly unplaced?: readonly Unplaced[];
  /** Its clips, whether or not they are wanted. */
  clips(choices: Choices): readonly ProposedClip[];
  /** For a source that is there: the clips of its file that it has or would get. */
  readonly following?: FollowingClips;
  /** Builds the import from the choices. */
  arrivals(choices: Choices): Arrival[];
  /** The metadata file that described the frames. */
  readonly description?: TakenDescription;
  /** For a source that is there already. */
  readonly recut?: Recut;
}

/** Clips that follow a file. Only with one that is `added`, by its ref, there is something for an action. */
export interface FollowingClips {
  readonly all: readonly ProposedClip[];
  readonly added: ReadonlySet<string>;
}

export interface KnownSource {
  readonly source: SourceId;
  readonly name: string;
  /** Whether it has just this art, which may only be cut another way. */
  readonly isSame: boolean;
}

/** What a file says of a source that is there, and said before if that is known. */
export interface Recut extends ToldOfSource {
  readonly source: SourceId;
  readonly cut: Extract<Cut, { by: "metadata" }>;
  readonly before: ToldOfSource | null;
  /** Which of the clips that the project lacks it may add. */
  readonly add: "new" | "all";
}

export const USUAL_CHOICES: Choices = {
  include: true,
  clear: true,
  clips: true,
  apart: false,
  layers: true,
  cut: "later",
  replaces: false,
};

/** The clearing of a ground, if it is to be cleared. */
export function clearingFor(ground: Ground | null, { clear }: Choices): { clearing?: Clearing } {
  return ground && clear ? { clearing: ground.clearing } : {};
}

/** The first few of a list in words. */
export function shortList(items: readonly (string | number)[]): string {
  return items.length > 6 ? `${items.slice(0, 6).join(", ")}, … (${items.length})` : items.join(", ");
}

/** A whole picture as a frame. */
export function wholeFrame({ sha256, width, height }: TakenPicture, clearing: { clearing?: Clearing }): ShownFrame {
  return { sha256, ...clearing, rect: { x: 0, y: 0, w: width, h: height } };
}

/** Pictures as sources have them. */
export function picturesOf(taken: readonly TakenPicture[]) {
  return taken.map(({ sha256, width, height }) => ({ sha256, width, height }));
}
