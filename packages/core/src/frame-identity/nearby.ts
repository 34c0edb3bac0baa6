/** Finds frames that may overlap a rectangle without looking at all of them. */
import type { Frame } from "../model";
import type { NewFrame } from "./new-frame";

const BLOCK = 128; // px

/** Frames that may overlap a piece: those of the blocks of its picture that it reaches. A frame may be given several times. */
export function neighbourhoods(frames: readonly Frame[]): (piece: NewFrame) => Frame[] {
  const blocks = new Map<string, Frame[]>();
  for (const frame of frames)
    for (const name of blocksOf(frame)) {
      const block = blocks.get(name);
      if (block) block.push(frame);
      else blocks.set(name, [frame]);
    }
  return (piece) => blocksOf(piece).flatMap((name) => blocks.get(name) ?? []);
}

function blocksOf({ rect: { x, y, w, h }, picture = 0 }: { rect: Frame["rect"]; picture?: number | undefined }): string[] {
  const names: string[] = [];
  for (let row = Math.floor(y / BLOCK); row <= Math.floor((y + h - 1) / BLOCK); row++)
    for (let column = Math.floor(x / BLOCK); column <= Math.floor((x + w - 1) / BLOCK); column++) names.push(`${picture} ${column} ${row}`);
  return names;
}
