/** Tests write GIFs with this library, which brings no types. */
declare module "gifenc" {
  type Palette = number[][];
  interface FrameOptions {
    palette?: Palette;
    /** Milliseconds. */
    delay?: number;
    dispose?: number;
    transparent?: boolean;
    transparentIndex?: number;
    repeat?: number;
  }
  export function GIFEncoder(): {
    writeFrame(index: Uint8Array, width: number, height: number, options?: FrameOptions): void;
    finish(): void;
    bytes(): Uint8Array;
  };
  export function quantize(rgba: Uint8Array, colours: number, options?: { format?: string; oneBitAlpha?: boolean }): Palette;
  export function applyPalette(rgba: Uint8Array, palette: Palette, format?: string): Uint8Array;
}
