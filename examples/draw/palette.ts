/**
 * The colours of The Tamarisk Road: hand-made ramps, dark to light. Dark tones lean to blue-violet, light ones to yellow.
 * Everything in the demo is drawn in these, so that its parts belong together.
 */
export type Ramp = readonly [string, string, string, string, string];

export const RAMPS = {
  skin: ["#3b1f2b", "#6b3630", "#96543a", "#bd7a4c", "#dda56c"],
  turban: ["#4a1830", "#8a2634", "#c0432d", "#e3712f", "#f5a54a"],
  coat: ["#1b1d3a", "#263a63", "#33598a", "#4c82ad", "#86b7c9"],
  sand: ["#4b3a45", "#7d6654", "#a98f68", "#d0b784", "#eedcae"],
  leather: ["#2a1a26", "#4c2c28", "#75452e", "#9d6839", "#c8944f"],
  cloth: ["#5a4a5c", "#94806f", "#c4b08d", "#e6d6b0", "#faf1d6"],
  boots: ["#1d1424", "#33202c", "#4a2e31", "#634037", "#80583f"],
  scarf: ["#3f1230", "#741c36", "#a92d3a", "#d24d44", "#ee8161"],
  dust: ["#9a8468", "#bda57c", "#d6bf92", "#e9d8ae", "#f6edcd"],
  stone: ["#2b2838", "#464355", "#686476", "#8f8b96", "#b9b5b5"],
  fire: ["#7a1f2e", "#c23a26", "#ef7a28", "#fdb93e", "#fff0a8"],
  glass: ["#26405c", "#4a7490", "#7fabb8", "#b5d6d2", "#e6f5ea"],
} as const satisfies Record<string, Ramp>;

export type Material = keyof typeof RAMPS;

export const INK = "#1b1420";

/** `#rrggbb` as red, green, blue. */
export function rgb(hex: string): readonly [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [value >> 16, (value >> 8) & 255, value & 255];
}
