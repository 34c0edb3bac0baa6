/**
 * Handles tiles for machines on which each tile uses one palette: finds the palette, and the tile in the colours that the palette replaces.
 */
import type { Palette, Px, Size } from "../model";
import { type Recolouring, recoloured, recolouringOf } from "../palette";
import { crop, looksSame, type Pixels, paste, rgbOf } from "../raster";
import type { NamedPixels } from "./tiles";

export interface PaletteUse {
  readonly name: string;
  /** The palettes that its tiles wear, in the project's order. */
  readonly palettes: readonly string[];
  /** Tiles whose colours no palette has all of. */
  readonly outside: number;
  /** Colours of the tile that has the most of them. */
  readonly mostColours: number;
}

export interface InPalettes {
  /** The same pictures, with each tile that wears a replacing palette in the replaced colours. */
  readonly pictures: readonly NamedPixels[];
  /** The palette of the tile at a place; null for none, and for an empty tile. */
  readonly wornAt: (picture: number, x: Px, y: Px) => string | null;
  readonly use: readonly PaletteUse[];
}

/**
 * Splits pictures from their top-left corner. A tile uses the first palette with all its colours: palettes to draw in before those that
 * replace others. A tile that could not be converted and restored exactly stays as it is, without a palette. Alpha is kept. Cost: O(pixels
 * + tiles × palettes × colours of a tile).
 */
export function inPalettes(pictures: readonly NamedPixels[], tile: Size, palettes: readonly Palette[]): InPalettes {
  const wardrobe = wardrobeOf(palettes);
  const worn = new Map<string, string>();
  const use: PaletteUse[] = [];
  const turned = pictures.map(({ name, pixels }, picture): NamedPixels => {
    let made = pixels;
    const used = new Set<string>();
    let [outside, mostColours] = [0, 0];
    for (let y = 0; y < pixels.height; y += tile.h)
      for (let x = 0; x < pixels.width; x += tile.w) {
        const area = { x, y, w: Math.min(tile.w, pixels.width - x), h: Math.min(tile.h, pixels.height - y) };
        const colours = coloursWithin(pixels, area);
        if (colours.size === 0) continue;
        mostColours = Math.max(mostColours, colours.size);
        const found = dressOf(wardrobe, colours, pixels, area);
        if (!found) {
          outside++;
          continue;
        }
        used.add(found.name);
        worn.set(`${picture} ${x} ${y}`, found.name);
        if (!found.inBase) continue;
        if (made === pixels) made = { ...pixels, bytes: pixels.bytes.slice() };
        paste(made, found.inBase, { x: 0, y: 0, w: area.w, h: area.h }, x, y);
      }
    use.push({ name, palettes: palettes.flatMap((each) => (used.has(each.name) ? [each.name] : [])), outside, mostColours });
    return { name, pixels: made };
  });
  return { pictures: turned, wornAt: (picture, x, y) => worn.get(`${picture} ${x} ${y}`) ?? null, use };
}

/** A tile as its palette shows it. */
export function worn(pixels: Pixels, palettes: readonly Palette[], palette: string | null): Pixels {
  const recolouring = palette === null ? null : recolouringOf(palettes, palette);
  return recolouring ? recoloured(pixels, recolouring) : pixels;
}

interface Dress {
  readonly name: string;
  readonly colours: ReadonlySet<number>;
  /** Converts to the replaced colours, and back; null for a palette to draw in. */
  readonly ways: readonly [into: Recolouring, back: Recolouring] | null;
}

function wardrobeOf(palettes: readonly Palette[]): Dress[] {
  const numberOf = (colour: string) => {
    const [red, green, blue] = rgbOf(colour as Parameters<typeof rgbOf>[0]);
    return (red << 16) | (green << 8) | blue;
  };
  const dresses = palettes.flatMap((palette): Dress[] => {
    const colours = new Set(palette.colours.map(numberOf));
    const base = palettes.find(({ name }) => name === palette.of);
    if (palette.of === undefined) return [{ name: palette.name, colours, ways: null }];
    const back = recolouringOf(palettes, palette.name);
    if (!base || !back) return [];
    const into = new Map<number, number>();
    for (const [place, colour] of palette.colours.entries()) {
      const of = base.colours[place];
      if (of !== undefined && !into.has(numberOf(colour))) into.set(numberOf(colour), numberOf(of));
    }
    return [{ name: palette.name, colours, ways: [[...into], back] }];
  });
  return [...dresses.filter(({ ways }) => !ways), ...dresses.filter(({ ways }) => ways)];
}

function dressOf(
  wardrobe: readonly Dress[],
  drawn: ReadonlySet<number>,
  pixels: Pixels,
  area: { x: Px; y: Px; w: Px; h: Px },
): { readonly name: string; readonly inBase: Pixels | null } | null {
  for (const { name, colours, ways } of wardrobe) {
    if (drawn.size > colours.size || ![...drawn].every((colour) => colours.has(colour))) continue;
    if (!ways) return { name, inBase: null };
    const part = crop(pixels, area);
    const inBase = recoloured(part, ways[0]);
    if (looksSame(recoloured(inBase, ways[1]), part)) return { name, inBase };
  }
  return null;
}

function coloursWithin({ width, bytes }: Pixels, { x, y, w, h }: { x: Px; y: Px; w: Px; h: Px }): Set<number> {
  const colours = new Set<number>();
  for (let row = y; row < y + h; row++)
    for (let k = (row * width + x) * 4; k < (row * width + x + w) * 4; k += 4)
      if (bytes[k + 3] !== 0) colours.add(((bytes[k] as number) << 16) | ((bytes[k + 1] as number) << 8) | (bytes[k + 2] as number));
  return colours;
}
