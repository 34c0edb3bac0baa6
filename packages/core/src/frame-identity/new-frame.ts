import type { Piece } from "../cut";
import type { Frame } from "../model";

/** What a piece may specify besides its place. */
export type NewFrame = Omit<Piece, "key"> & {
  readonly key: string | null;
  readonly turned?: Frame["turned"] | false;
  readonly picture?: number;
  readonly name?: string;
  readonly origin?: Frame["origin"];
  readonly marks?: Frame["marks"];
};

/** The position of a frame or a piece: its picture and rectangle. */
export function placeOf({ rect: { x, y, w, h }, picture = 0 }: { rect: Frame["rect"]; picture?: number | undefined }): string {
  return `${picture} ${x} ${y} ${w} ${h}`;
}
