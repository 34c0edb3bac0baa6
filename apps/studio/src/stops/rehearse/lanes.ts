/** Computes the account as lanes over time: rules, buttons and switches, facings, events. Painted elsewhere. */
import type { Micros, TrackEntry } from "@caravan/core/model";
import { type Bar, barsOf, type Comparison } from "@caravan/core/rehearse";
import { t } from "../../ui/words";
import { endTime, rowsOf, type Session, shownTime } from "./session";

/** The width of the words before the lanes, in CSS pixels. */
const WORDS = 58;
const ROW = 20;
const GAP = 3;
export const LANES_HEIGHT = 4 * ROW + 16;
/** At least this much is shown, so that the start does not race across. */
const LEAST_SPAN: Micros = 6_000_000;

interface LaneBar {
  readonly from: Micros;
  readonly to: Micros;
  readonly text: string;
  /** Set if it differs from the account beside it. */
  readonly differs?: boolean;
  readonly quiet?: boolean;
}

export interface Lane {
  readonly word: string;
  readonly bars: readonly LaneBar[];
  /** Moments with a name. */
  readonly ticks: readonly { readonly at: Micros; readonly text: string }[];
}

export interface Lanes {
  readonly lanes: readonly Lane[];
  readonly span: Micros;
  readonly at: Micros;
}

export function spanShown(session: Pick<Session, "end" | "drive">): Micros {
  return Math.max(LEAST_SPAN, endTime(session), (session.drive?.length ?? 0) * 1000);
}

export function timeAtX(x: number, span: Micros, width: number): Micros {
  return ((x - WORDS) / Math.max(1, width - WORDS)) * span;
}

export function lanesOf(session: Session, comparison: Comparison | null): Lanes {
  const end = endTime(session);
  const barOf = ({ rule, from, to, same }: Bar & { readonly same?: boolean }): LaneBar => ({
    from: from * 1000,
    to: to * 1000,
    text: rule ?? "",
    ...(rule === null ? { quiet: true } : {}),
    ...(same === false ? { differs: true } : {}),
  });
  const now = comparison
    ? comparison.now.map(barOf)
    : barsOf(
        rowsOf(session).map((row) => ({ ...row, at: row.at / 1000 })),
        end / 1000,
      ).map(barOf);
  const { track } = session.log;
  return {
    lanes: [
      { word: comparison ? t("now") : t("rules"), bars: now, ticks: [] },
      ...(comparison ? [{ word: t("kept"), bars: comparison.before.map(barOf), ticks: [] }] : []),
      { word: t("inputs"), bars: inputBars(track, session, end), ticks: [] },
      { word: t("looks"), bars: facingBars(track, end), ticks: [] },
      { word: t("events"), bars: [], ticks: session.log.events.map(({ at, name }) => ({ at, text: name })) },
    ],
    span: spanShown(session),
    at: shownTime(session),
  };
}

/** Buttons while they are down, switches while they are on. */
function inputBars(track: readonly TrackEntry[], session: Session, end: Micros): LaneBar[] {
  const { setting } = session;
  const bars: LaneBar[] = [];
  const since = new Map<string, Micros>();
  const fed = new Set(Object.values(setting?.stage.feeds ?? {}));
  const begin = (name: string, at: Micros) => !since.has(name) && since.set(name, at);
  const finish = (name: string, at: Micros) => {
    const from = since.get(name);
    if (from !== undefined) bars.push({ from, to: at, text: name });
    since.delete(name);
  };
  // Rules set switches too, right after what was given at that time.
  const bySetting = rowsOf(session).flatMap((row): TrackEntry[] => {
    const set = setting?.program.rules.find(({ name }) => name === row.rule)?.set;
    return set ? [{ at: row.at / 1000, set }] : [];
  });
  for (const entry of [...track, ...bySetting].sort((a, b) => a.at - b.at)) {
    const at = entry.at * 1000;
    if ("press" in entry) begin(entry.press, at);
    else if ("release" in entry) finish(entry.release, at);
    else if ("set" in entry)
      for (const [name, value] of Object.entries(entry.set)) {
        if (typeof value !== "boolean" || fed.has(name)) continue;
        if (value) begin(name, at);
        else finish(name, at);
      }
  }
  for (const name of [...since.keys()]) finish(name, end);
  return bars;
}

const ARROWS: Readonly<Record<string, string>> = { e: "→", se: "↘", s: "↓", sw: "↙", w: "←", nw: "↖", n: "↑", ne: "↗" };

function facingBars(track: readonly TrackEntry[], end: Micros): LaneBar[] {
  const faces = track.flatMap((entry) => ("face" in entry ? [{ at: entry.at * 1000, text: ARROWS[entry.face] ?? "" }] : []));
  return faces.map(({ at, text }, k) => ({ from: at, to: faces[k + 1]?.at ?? end, text, quiet: true }));
}

/** Paints at device resolution. Colours come from the page's tokens. */
export function paintLanes(
  context: CanvasRenderingContext2D,
  { lanes, span, at }: Lanes,
  style: CSSStyleDeclaration,
  width: number,
  density: number,
): void {
  const token = (name: string) => style.getPropertyValue(name);
  const x = (time: Micros) => WORDS + (time / span) * (width - WORDS);
  context.setTransform(density, 0, 0, density, 0, 0);
  context.clearRect(0, 0, width, context.canvas.height / density);
  context.font = '12px "Atkinson Hyperlegible Next", system-ui, sans-serif';
  context.textBaseline = "middle";
  for (const [k, lane] of lanes.entries()) {
    const top = k * ROW;
    context.fillStyle = token("--muted");
    context.fillText(lane.word, 0, top + ROW / 2);
    for (const bar of lane.bars) {
      const [from, to] = [x(bar.from), x(bar.to)];
      const w = Math.max(1, to - from - 1);
      context.fillStyle = bar.differs ? token("--brick-soft") : bar.quiet ? token("--raised") : token("--lapis-soft");
      context.fillRect(from, top + GAP / 2, w, ROW - GAP);
      context.strokeStyle = bar.differs ? token("--brick") : token("--lapis");
      context.globalAlpha = bar.quiet ? 0.35 : 1;
      context.setLineDash(bar.differs ? [3, 2] : []);
      context.strokeRect(from + 0.5, top + GAP / 2 + 0.5, Math.max(0, w - 1), ROW - GAP - 1);
      context.setLineDash([]);
      context.globalAlpha = 1;
      const text = bar.differs ? `≠ ${bar.text}` : bar.text;
      if (w > 14 && text !== "") within(context, from + 4, w - 6, text, bar.differs ? token("--brick") : token("--ink"), top + ROW / 2);
    }
    for (const [n, tick] of lane.ticks.entries()) {
      const left = x(tick.at);
      context.fillStyle = token("--cactus");
      context.fillRect(left, top + GAP, 2, ROW - 2 * GAP);
      const next = lane.ticks[n + 1];
      const free = (next ? x(next.at) : width) - left;
      if (context.measureText(tick.text).width + 8 > free) continue;
      context.fillStyle = token("--ink");
      context.fillText(tick.text, left + 5, top + ROW / 2);
    }
  }
  const foot = lanes.length * ROW;
  context.fillStyle = token("--muted");
  const each = [1, 2, 5, 10, 20, 30, 60, 120].find((step) => (step * 1_000_000 * (width - WORDS)) / span > 44) ?? 300;
  for (let second = 0; second * 1_000_000 <= span; second += each) {
    context.fillRect(x(second * 1_000_000), foot, 1, 4);
    if (x(second * 1_000_000) < width - 20) context.fillText(`${second} s`, x(second * 1_000_000) + 3, foot + 8);
  }
  context.fillStyle = token("--now");
  context.fillRect(x(at) - 1, 0, 2, foot + 6);
}

function within(context: CanvasRenderingContext2D, left: number, wide: number, text: string, ink: string, y: number): void {
  context.save();
  context.beginPath();
  context.rect(left - 2, y - ROW / 2, wide + 2, ROW);
  context.clip();
  context.fillStyle = ink;
  context.fillText(text, left, y);
  context.restore();
}
