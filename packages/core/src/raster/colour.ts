import type { Colour } from "../model";

export type Rgb = readonly [red: number, green: number, blue: number];

export function rgbOf(colour: Colour): Rgb {
  const number = Number.parseInt(colour.slice(1), 16);
  return [number >> 16, (number >> 8) & 255, number & 255];
}

export function hexOf([red, green, blue]: Rgb): Colour {
  return `#${((red << 16) | (green << 8) | blue).toString(16).padStart(6, "0")}`;
}
