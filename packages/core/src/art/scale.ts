/** Names scale factors, and proposes the one that matches other art. */

/** What is known about a source's art. */
export interface Figures {
  /** Drawn heights of its frames, in pixels of the art; none while it is not cut. */
  readonly heights: readonly number[];
  /** How large the art's own pixels are: more than 1 for pixel art that was saved enlarged. */
  readonly pixel: number;
  /** Project pixels for each pixel of the art. */
  readonly scale: number;
}

export interface ProposedScale {
  readonly scale: number;
  readonly because: "heights" | "pixels";
  /** The two lengths to be made equal, in project pixels: this art's at that scale, and the other's. */
  readonly own: number;
  readonly other: number;
}

const LEAST = 0.01;
const MOST = 16;
/** A factor within this share of a whole one, or of its inverse, is meant to be it: figures are never equally tall to the pixel. */
const NEAR = 0.15;

/** Scales at which `own` matches `other`: figures equally tall, or the art's own pixels equally large. The first is the better guess. */
export function proposedScales(own: Figures, other: Figures): ProposedScale[] {
  const proposals: ProposedScale[] = [];
  const [mine, theirs] = [middleOf(own.heights), middleOf(other.heights)];
  if (mine !== null && theirs !== null) {
    const wanted = theirs * other.scale;
    const scale = roundScale(wanted / mine);
    proposals.push({ scale, because: "heights", own: rounded(mine * scale), other: rounded(wanted) });
  }
  const pixel = other.pixel * other.scale;
  const byPixel = roundScale(pixel / own.pixel);
  if (!proposals.some(({ scale }) => scale === byPixel))
    proposals.push({ scale: byPixel, because: "pixels", own: rounded(own.pixel * byPixel), other: rounded(pixel) });
  return proposals;
}

/** The nearest whole factor or inverse if the factor is close to one, otherwise the factor in hundredths. */
function roundScale(factor: number): number {
  const up = factor >= 1;
  const times = Math.round(up ? factor : 1 / factor);
  const nice = up ? times : 1 / times;
  const scale = Math.abs(factor - nice) <= nice * NEAR ? nice : Math.round(factor * 100) / 100;
  return Math.min(MOST, Math.max(LEAST, scale));
}

function middleOf(values: readonly number[]): number | null {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? null;
}

function rounded(value: number): number {
  return Math.round(value * 10) / 10;
}

/** "×2", "×½", "×0.75". */
export function scaleInWords(scale: number): string {
  const times = Math.round(1 / scale);
  const fraction = Math.abs(1 / scale - times) < 0.005 * times ? FRACTIONS[times] : undefined;
  return `×${fraction ?? Number(scale.toFixed(3))}`;
}

const FRACTIONS: Readonly<Record<number, string>> = { 2: "½", 3: "⅓", 4: "¼", 5: "⅕", 6: "⅙", 8: "⅛" };
