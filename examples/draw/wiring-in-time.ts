/** Plates on when a frame is shown: steps and their times, time that is left over, and how a clip ends. */
import type { Atlas, AtlasClip } from "@caravan/core/atlas";
import type { Pixels } from "@caravan/core/raster";
import type { Atlas as GameAtlas } from "@caravan/player";
import { createBehaviour } from "@caravan/player/behaviour";
import { block, INK, LAPIS, LINE, label, MUTED, outline, plate, SAFFRON, stand } from "./plate";

const clipOf = (atlas: Atlas, name: string) => atlas.clips[name] as AtlasClip;

/** A clip as a ribbon: each step as wide as it is long. */
export function stepsInTime(atlas: Atlas, page: Pixels): Pixels {
  const { steps, playback, loopFrom } = clipOf(atlas, "halt");
  const perMs = 0.85; // px
  const total = steps.reduce((sum, { ms }) => sum + ms, 0);
  const out = plate(Math.round(total * perMs) + 48, 232, 1);
  let x = 24;
  for (const [k, { frame, ms }] of steps.entries()) {
    const wide = Math.round(ms * perMs);
    outline(out, { x, y: 40, w: wide, h: 118 }, k < loopFrom ? MUTED : LAPIS, 2, 1);
    stand(out, atlas, page, frame, x + Math.round(wide / 2), 148, 2);
    label(out, `${k}`, x + 6, 46, MUTED);
    label(out, `${ms} ms`, x + wide / 2, 166, INK, true);
    if (k === loopFrom && loopFrom > 0) block(out, x - 2, 30, 4, 136, SAFFRON);
    x += wide;
  }
  label(out, "step", 24, 10, MUTED);
  const words = `playback: ${playback}${loopFrom > 0 ? `, later rounds from step ${loopFrom}` : ""}`;
  label(out, words, 24, 166 + 1.5 * LINE, INK);
  return out;
}

/** Eight steps of 100 ms in a game that updates every 60 ms: with time carried over, and with it lost. */
export function carrying(atlas: Atlas, page: Pixels): Pixels {
  const { steps } = clipOf(atlas, "walk-e");
  const [tick, step, perMs] = [60, 100, 0.9];
  const out = plate(Math.round(960 * perMs) + 48, 2 * 190 + 16, 1);
  const row = (top: number, words: string, hex: string, shownFrom: (k: number) => number) => {
    label(out, words, 24, top + 8, INK);
    for (let ms = 0; ms <= 960; ms += tick) block(out, 24 + Math.round(ms * perMs), top + 34, 1, 8, MUTED);
    for (const [k, { frame }] of steps.entries()) {
      const [from, to] = [shownFrom(k), shownFrom(k + 1)].map((ms) => 24 + Math.round(ms * perMs)) as [number, number];
      outline(out, { x: from, y: top + 46, w: to - from, h: 118 }, hex, 1, 1);
      stand(out, atlas, page, frame, Math.round((from + to) / 2), top + 156, 2);
    }
  };
  row(8, "left over carried: the round takes 800 ms, as it was made", LAPIS, (k) =>
    k === steps.length ? 800 : Math.ceil((k * step) / tick) * tick,
  );
  row(198, "left over lost: each step waits for the next look, 960 ms", SAFFRON, (k) => k * Math.ceil(step / tick) * tick);
  return out;
}

/** The last step of a one-shot clip, and what shows afterwards. */
export function endings(atlas: Atlas, page: Pixels): Pixels {
  const { steps } = clipOf(atlas, "dust-whirl");
  const shown = [0, 4, 8, 12, 16, steps.length - 1];
  const cell = { w: 116, h: 200 };
  const out = plate((shown.length + 3) * cell.w + 72, cell.h + 16, 1);
  const put = (at: number, frame: string | null, words: string, hex: string, ended: boolean) => {
    const x = 24 + at * cell.w + (ended ? 24 : 0);
    outline(out, { x: x + 4, y: 24, w: cell.w - 8, h: 140 }, hex, ended ? 2 : 1, 1);
    if (frame !== null) stand(out, atlas, page, frame, x + cell.w / 2, 152, 2);
    label(out, words, x + cell.w / 2, 172, hex, true);
  };
  for (const [k, step] of shown.entries()) put(k, steps[step]?.frame ?? null, `${step}`, MUTED, false);
  put(shown.length, steps.at(-1)?.frame ?? null, "hold", LAPIS, true);
  put(shown.length + 1, steps[0]?.frame ?? null, "first", LAPIS, true);
  put(shown.length + 2, null, "hide", LAPIS, true);
  block(out, 24 + shown.length * cell.w + 11, 16, 3, 176, SAFFRON);
  return out;
}

/** What the porter is given, by time in ms, and the rule that shows from then on: the delivered behaviour itself decides. */
const GIVEN: Readonly<Record<number, (porter: ReturnType<typeof createBehaviour>) => void>> = {
  0: (porter) => porter.face("e"),
  500: (porter) => porter.set("speed", 30),
  1400: (porter) => porter.set("speed", 0),
  2200: (porter) => porter.set("lamp", true),
  2700: (porter) => porter.set("speed", 30),
  3600: (porter) => porter.set("speed", 0),
  4900: (porter) => porter.press("act"),
};

/** The atlas as a game has it: parsed from its file. */
function asGamesHaveIt(atlas: Atlas): GameAtlas {
  return JSON.parse(JSON.stringify(atlas));
}

/** A behaviour over five seconds: the inputs below, the active rules above, each with the frame at its middle. */
export function ruled(atlas: Atlas, page: Pixels): Pixels {
  const [perMs, until, tick] = [0.2, 5900, 20];
  const out = plate(Math.round(until * perMs) + 48, 262, 1);
  const porter = createBehaviour(asGamesHaveIt(atlas), "porter");
  const shown: { readonly at: number; readonly rule: string | null; readonly frame: string | null }[] = [];
  for (let at = 0; at < until; at += tick) {
    GIVEN[at]?.(porter);
    const { rule, frame } = porter.advance(at === 0 ? 0 : tick);
    shown.push({ at, rule, frame });
  }
  const x = (ms: number) => 24 + Math.round(ms * perMs);
  const bars = shown.filter(({ rule }, k) => rule !== shown[k - 1]?.rule);
  for (const [k, { at, rule }] of bars.entries()) {
    const to = bars[k + 1]?.at ?? until;
    const middle = shown.find((each) => each.at >= (at + to) / 2);
    outline(out, { x: x(at) + 1, y: 30 + (k % 2) * 26, w: x(to) - x(at) - 3, h: 140 - (k % 2) * 26 }, LAPIS, 1, 1);
    if (middle?.frame && to - at > 200) stand(out, atlas, page, middle.frame, x((at + to) / 2), 162, 2);
    label(out, rule ?? "nothing", x(at) + 4, 8 + (k % 2) * 26, INK);
  }
  const words = ["speed 30", "speed 0", "lamp on", "speed 30", "speed 0", "act pressed"];
  for (const [k, at] of Object.keys(GIVEN)
    .map(Number)
    .filter((each) => each > 0)
    .entries()) {
    block(out, x(at) - 1, 176, 3, 14, SAFFRON);
    label(out, words[k] ?? "", x(at) + 6, 178 + (k % 2) * LINE, INK);
  }
  label(out, "given", 24, 178, MUTED);
  label(out, "walk kept its phase, halt and set down are kept for their time", 24, 234, MUTED);
  return out;
}
