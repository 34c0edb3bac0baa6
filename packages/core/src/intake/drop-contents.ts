/** The contents of one drop, read and stored: pictures by hash, and recognised metadata files. */
import type { ToldOfSource } from "../edit";
import type { Understood } from "../metadata";
import type { Blend, SourceId } from "../model";
import type { Coverage, Ground } from "../raster";

/** A picture that was read and stored. */
export interface TakenPicture {
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
  readonly coverage: Coverage;
  readonly ground: Ground | null;
}

/** What a layered file says of a layer. */
export interface LayerOfFile {
  readonly name: string;
  readonly blend: Blend;
}

/** What a file of art holds, its pictures being as they are at the time: just read, or stored. */
export type ArtOf<Each> =
  | { readonly kind: "still"; readonly picture: Each }
  | {
      readonly kind: "animation";
      readonly pictures: readonly (Each & { readonly ms: number })[];
      readonly plays: number;
      readonly broken: readonly { readonly index: number; readonly why: string }[];
    }
  | {
      readonly kind: "layers";
      readonly layers: readonly (Each & LayerOfFile)[];
      /** With groups in it: the layers if groups are not made one, and how they look then. */
      readonly apart: { readonly layers: readonly (Each & LayerOfFile)[]; readonly unlikeMerged: number | null } | null;
      readonly hidden: number;
      readonly groups: number;
      /** Layers that are blended in ways that are not known here, in the file's words. */
      readonly unlike: readonly { readonly name: string; readonly blended: string }[];
      readonly damaged: readonly { readonly name: string; readonly why: string }[];
      /** Numbers of layers that cannot be read, in the file's words, with what is used instead. */
      readonly unread: readonly { readonly name: string; readonly field: string; readonly text: string; readonly used: number }[];
      /** How many pixels look different, composed of the layers, from the merged picture in the file; null if it has none. */
      readonly unlikeMerged: number | null;
    };

export type TakenArt = ArtOf<TakenPicture>;

export interface TakenItem {
  /** Its path from what was handed over, with `/`. */
  readonly path: string;
  readonly art: TakenArt;
  /** The source whose art it is, if that is known otherwise than by names. */
  readonly of?: SourceId;
}

/** A source that a file describes, and what its file said of it before: null if there was none, or it is not known. */
export interface DescribedSource {
  readonly source: SourceId;
  readonly name: string;
  readonly before: ToldOfSource | null;
}

/** A metadata file that was understood for one of the pictures, or for a source that is there already. */
export interface TakenDescription {
  readonly path: string;
  readonly of: { readonly picture: string } | DescribedSource;
  readonly understood: Understood;
  readonly text: string;
}

/** The picture of an item that is a still. */
export function stillOf({ art }: TakenItem): TakenPicture {
  if (art.kind !== "still") throw new Error("Only stills are sheets.");
  return art.picture;
}

/** The last part of a path. */
export function fileOf(path: string): string {
  return path.slice(path.lastIndexOf("/") + 1);
}
