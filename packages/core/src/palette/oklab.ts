/**
 * Converts colours to OKLab and OKLCH, where distances match what eyes see. Source: Björn Ottosson, "A perceptual color space for image
 * processing", 2020 (public domain). Lightness 0 to 1, chroma 0 to about 0.4, hue in degrees from 0 to 360.
 */
import type { Rgb } from "../raster";

export interface Oklab {
  readonly l: number;
  readonly a: number;
  readonly b: number;
}

export interface Oklch {
  readonly l: number;
  readonly c: number;
  readonly h: number;
}

export function oklabOf(rgb: Rgb): Oklab {
  const [r, g, b] = rgb.map(linear) as [number, number, number];
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return {
    l: 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    a: 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    b: 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  };
}

export function oklchOf(rgb: Rgb): Oklch {
  const { l, a, b } = oklabOf(rgb);
  const degrees = (Math.atan2(b, a) * 180) / Math.PI;
  return { l, c: Math.hypot(a, b), h: degrees < 0 ? degrees + 360 : degrees };
}

/** The nearest colour of eight bits a channel; chroma that the screen does not have is cut off, lightness and hue kept. */
export function rgbOfOklch({ l, c, h }: Oklch): Rgb {
  let [least, most] = [0, c];
  if (isShown(l, c, h)) least = c;
  else
    for (let k = 0; k < 16; k++) {
      const middle = (least + most) / 2;
      if (isShown(l, middle, h)) least = middle;
      else most = middle;
    }
  return linearOf(l, least, h).map((each) => Math.round(255 * gamma(Math.max(0, Math.min(1, each))))) as unknown as Rgb;
}

/** How far apart two colours look: their distance in OKLab. About 0.02 is just seen. */
export function colourDistance(one: Rgb, other: Rgb): number {
  const [p, q] = [oklabOf(one), oklabOf(other)];
  return Math.hypot(p.l - q.l, p.a - q.a, p.b - q.b);
}

/** Channels may exceed 0 to 1 by this much and still round to a displayable value. */
const SLACK = 0.5 / 255;

function isShown(l: number, c: number, h: number): boolean {
  return linearOf(l, c, h).every((each) => each >= -SLACK && each <= 1 + SLACK);
}

function linearOf(lightness: number, c: number, h: number): number[] {
  const [a, b] = [c * Math.cos((h * Math.PI) / 180), c * Math.sin((h * Math.PI) / 180)];
  const l = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (lightness - 0.0894841775 * a - 1.291485548 * b) ** 3;
  return [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ];
}

function linear(channel: number): number {
  const part = channel / 255;
  return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
}

function gamma(part: number): number {
  return part <= 0.0031308 ? part * 12.92 : 1.055 * part ** (1 / 2.4) - 0.055;
}
