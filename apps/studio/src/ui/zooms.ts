/** Zoom levels that keep pixels whole: whole numbers, and halvings for pictures larger than their view. */
const ZOOMS = [0.0625, 0.125, 0.25, 0.5, 1, 2, 3, 4, 5, 6, 8, 10, 12, 16, 24, 32] as const;

/**
 * CSS pixels per pixel of a picture at this zoom: on screens of 1.25 or 1.5 device pixels to a CSS pixel a little more or less than asked, so
 * that all pixels of the picture are equally large there. Zooms below 1 stay as they are.
 */
export function evenScale(zoom: number, density: number): number {
  return zoom < 1 ? zoom : Math.max(1, Math.round(zoom * density)) / density;
}

/** CSS pixels: the nearest place at which one of the screen's pixels begins. */
export function onPixel(px: number, density: number): number {
  return Math.round(px * density) / density;
}

/** The zooms that one surface has, from the least to the most. */
export function zoomsBetween(least: number, most: number): readonly number[] {
  return ZOOMS.filter((zoom) => zoom >= least && zoom <= most);
}

/** The largest zoom at which something fits, otherwise the smallest. */
export function largestFitting(zooms: readonly number[], fits: (zoom: number) => boolean): number {
  return zooms.findLast(fits) ?? (zooms[0] as number);
}

/** The next zoom in a direction, or the same at the end. */
export function nextZoom(zooms: readonly number[], zoom: number, direction: 1 | -1): number {
  const at = zooms.findIndex((each) => each >= zoom);
  const from = at < 0 ? zooms.length - 1 : at;
  return zooms[Math.max(0, Math.min(zooms.length - 1, from + direction))] as number;
}
