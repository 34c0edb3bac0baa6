/** The parts of gifenc that are used; the package brings no types. */
declare module "gifenc" {
  type Palette = number[][];
  interface FrameOptions {
    palette?: Palette;
    /** Milliseconds; written in hundredths of a second. */
    delay?: number;
    transparent?: boolean;
    transparentIndex?: number;
    /** -1 once, 0 forever, otherwise the number of repeats. */
    repeat?: number;
    dispose?: number;
  }
  interface Encoder {
    writeFrame(index: Uint8Array, width: number, height: number, options: FrameOptions): void;
    finish(): void;
    bytes(): Uint8Array;
  }
  interface Gifenc {
    GIFEncoder(): Encoder;
    quantize(
      rgba: Uint8Array,
      most: number,
      options?: { format?: "rgb565" | "rgb444" | "rgba4444"; oneBitAlpha?: boolean | number },
    ): Palette;
    applyPalette(rgba: Uint8Array, palette: Palette, format?: "rgb565" | "rgb444" | "rgba4444"): Uint8Array;
  }
  const gifenc: Gifenc;
  export default gifenc;
  export const GIFEncoder: Gifenc["GIFEncoder"];
  export const quantize: Gifenc["quantize"];
  export const applyPalette: Gifenc["applyPalette"];
}
