/**
 * Counts what a machine with few tiles needs: pictures split into tiles from their top-left corner, padded with transparent pixels at right
 * and bottom. Transparent tiles are not counted; flipped tiles count as one unless asked otherwise.
 *
 * A hash that is the same for all flips of a tile finds candidates, which are then compared pixel by pixel.
 */
import type { Flip, Px, Size } from "../model";
import type { Pixels } from "../raster";

export interface NamedPixels {
  readonly name: string;
  readonly pixels: Pixels;
}

/** A non-empty tile and its position. */
export interface PlacedTile {
  /** Of the picture, in the order given. */
  readonly frame: number;
  readonly x: Px;
  readonly y: Px;
  /** Among the distinct tiles, in the order in which they were first met. */
  readonly tile: number;
  /** How the distinct one has to be flipped to be this. */
  readonly flip?: Flip;
}

export interface Tiles {
  readonly tile: Size;
  readonly placed: readonly PlacedTile[];
  /** How many distinct ones there are, and the pixels of each. */
  readonly distinct: number;
  readonly pixelsOf: (tile: number) => Pixels;
  /** Distinct RGBA, all clear pixels left out. */
  readonly colours: number;
  readonly perFrame: readonly { readonly name: string; readonly tiles: number; readonly own: number }[];
}

const FLIPS: readonly (Flip | undefined)[] = [undefined, "across", "down", "both"];

/** Cost: O(pixels), four times with flips. */
export function tilesOf(frames: readonly NamedPixels[], tile: Size, flips = true): Tiles {
  const counting = new Counting(tile, flips ? FLIPS : [undefined]);
  const placed: PlacedTile[] = [];
  for (const [frame, { pixels }] of frames.entries()) counting.place(pixels, frame, placed);
  const owner = new Int32Array(counting.distinct).fill(NOBODY);
  for (const { tile: found, frame } of placed) owner[found] = owner[found] === NOBODY || owner[found] === frame ? frame : SHARED;
  const own = frames.map(() => 0);
  for (const frame of owner) if (frame !== SHARED) own[frame] = (own[frame] as number) + 1;
  const tiles = frames.map(() => 0);
  for (const { frame } of placed) tiles[frame] = (tiles[frame] as number) + 1;
  return {
    tile,
    placed,
    distinct: counting.distinct,
    pixelsOf: (number) => counting.pixelsOf(number),
    colours: counting.colours,
    perFrame: frames.map(({ name }, k) => ({ name, tiles: tiles[k] as number, own: own[k] as number })),
  };
}

/** The owner of a tile that several frames have, and of one that was not looked at yet. */
const SHARED = -1;
const NOBODY = -2;

class Counting {
  distinct = 0;
  colours = 0;
  /** The distinct tiles one behind the other; twice as long whenever it is full. */
  private kept = new Int32Array(1 << 14);
  /** Distinct tiles by hash, each stored as its number + 1, 0 for none; collisions go to the next slot. */
  private slots = new Int32Array(1 << 12);
  private hashes = new Int32Array(1 << 11);
  private readonly here: Int32Array;
  /** For each flip, the new index of each pixel of the tile. */
  private readonly turned: readonly Uint32Array[];
  /** Of columns, then of rows; those of two that a flip exchanges are equal. */
  private readonly weights: readonly [Int32Array, Int32Array];
  /** A bit for each opaque colour; the others by themselves. */
  private readonly opaque = new Uint32Array(1 << 19);
  private readonly soft = new Set<number>();

  constructor(
    private readonly tile: Size,
    private readonly flips: readonly (Flip | undefined)[],
  ) {
    const { w, h } = tile;
    this.here = new Int32Array(w * h);
    this.turned = flips.map((flip) =>
      Uint32Array.from({ length: w * h }, (_, k) => {
        const [x, y] = [k % w, Math.floor(k / w)];
        return (flip === "down" || flip === "both" ? h - 1 - y : y) * w + (flip === "across" || flip === "both" ? w - 1 - x : x);
      }),
    );
    // Odd numbers that repeat nowhere: multiples of the golden ratio (Knuth, "Sorting and Searching", 6.4).
    const weights = (count: number, from: number) =>
      Int32Array.from({ length: count }, (_, k) => Math.imul(Math.min(k, count - 1 - k) + from, 0x9e3779b1) | 1);
    this.weights = [weights(w, 1), weights(h, 5000)];
  }

  place({ width, height, bytes }: Pixels, frame: number, placed: PlacedTile[]): void {
    const { w, h } = this.tile;
    const aligned = bytes.byteOffset % 4 === 0 ? bytes : bytes.slice();
    const words = new Int32Array(aligned.buffer, aligned.byteOffset, aligned.byteLength >> 2);
    for (let y = 0; y < height; y += h)
      for (let x = 0; x < width; x += w) {
        const hash = this.take(words, width, height, x, y);
        if (hash === null) continue;
        const { tile, flip } = this.found(hash);
        placed.push(flip ? { frame, x, y, tile, flip } : { frame, x, y, tile });
      }
  }

  /** Copies a tile, clear pixels all alike, and answers a hash that is the same for all its flips; null if nothing is drawn in it. */
  private take(words: Int32Array, width: number, height: number, left: number, top: number): number | null {
    const { here } = this;
    const { w, h } = this.tile;
    const [along, down] = this.weights;
    const [inX, inY] = [Math.min(w, width - left), Math.min(h, height - top)];
    if (inX < w || inY < h) here.fill(0);
    let drawn = 0;
    let hash = 0;
    for (let y = 0; y < inY; y++) {
      const line = (top + y) * width + left;
      const to = y * w;
      let row = 0;
      for (let x = 0; x < inX; x++) {
        const stored = words[line + x] as number;
        // 0 if its alpha is 0, without a branch: which pixels are clear cannot be foretold.
        const word = stored & (-(stored >>> 24) >> 31);
        here[to + x] = word;
        drawn |= word;
        row = (row + Math.imul(word ^ (word >>> 15), along[x] as number)) | 0;
      }
      hash = (hash + Math.imul(row ^ (row >>> 13), down[y] as number)) | 0;
    }
    return drawn === 0 ? null : hash;
  }

  private count(word: number): void {
    if (word === 0) return;
    if (word >>> 24 !== 255) {
      if (this.soft.has(word)) return;
      this.soft.add(word);
      this.colours++;
      return;
    }
    const [place, bit] = [(word & 0xffffff) >>> 5, 1 << (word & 31)];
    const bits = this.opaque[place] as number;
    if (bits & bit) return;
    this.opaque[place] = bits | bit;
    this.colours++;
  }

  pixelsOf(tile: number): Pixels {
    const { w, h } = this.tile;
    const words = this.kept.slice(tile * w * h, (tile + 1) * w * h);
    return { width: w, height: h, bytes: new Uint8Array(words.buffer) };
  }

  private found(hash: number): { readonly tile: number; readonly flip?: Flip } {
    const { turned, flips } = this;
    let slot = this.slotOf(hash);
    for (; this.slots[slot] !== 0; slot = (slot + 1) & (this.slots.length - 1)) {
      const tile = (this.slots[slot] as number) - 1;
      if (this.hashes[tile] !== hash) continue;
      for (let k = 0; k < turned.length; k++)
        if (this.isSame(tile, turned[k] as Uint32Array)) {
          const flip = flips[k];
          return flip ? { tile, flip } : { tile };
        }
    }
    const tile = this.distinct++;
    this.keep(tile);
    this.slots[slot] = tile + 1;
    this.hashes[tile] = hash;
    if (this.distinct === this.hashes.length) this.widen();
    return { tile };
  }

  private slotOf(hash: number): number {
    return (Math.imul(hash ^ (hash >>> 15), 0x9e3779b1) >>> 8) & (this.slots.length - 1);
  }

  /** Twice as many slots as hashes, always: so a free one is near. */
  private widen(): void {
    const hashes = new Int32Array(this.hashes.length * 2);
    hashes.set(this.hashes);
    this.hashes = hashes;
    this.slots = new Int32Array(hashes.length * 2);
    for (let tile = 0; tile < this.distinct; tile++) {
      let slot = this.slotOf(hashes[tile] as number);
      while (this.slots[slot] !== 0) slot = (slot + 1) & (this.slots.length - 1);
      this.slots[slot] = tile + 1;
    }
  }

  private keep(tile: number): void {
    const { here } = this;
    const end = (tile + 1) * here.length;
    if (end > this.kept.length) {
      const larger = new Int32Array(Math.max(end, this.kept.length * 2));
      larger.set(this.kept);
      this.kept = larger;
    }
    this.kept.set(here, tile * here.length);
    // A colour that no distinct tile has is in none.
    for (let k = 0; k < here.length; k++) if (here[k] !== here[k - 1]) this.count(here[k] as number);
  }

  private isSame(tile: number, places: Uint32Array): boolean {
    const { here, kept } = this;
    const start = tile * here.length;
    for (let k = 0; k < here.length; k++) if (here[k] !== kept[start + (places[k] as number)]) return false;
    return true;
  }
}
