/** Runs what is on the stage besides the figure: effects that come and go, and permanent extras. */
import type { Cast } from "../behave";
import { angleOfFacing } from "../facing";
import type { Effect, Facing, FramePoint, Micros, Stage } from "../model";
import { pointOf, type Standing } from "./figure";
import type { Setting } from "./setting";

/** An effect that is on the stage. */
export interface Playing {
  readonly effect: Effect;
  readonly cast: Cast;
  readonly born: Micros;
  readonly gone: Micros;
  readonly x: number;
  readonly y: number;
  /** Its speed, in px a second. */
  readonly vx: number;
  readonly vy: number;
}

/** An effect as it begins; null where it has nothing to play. */
export function startOf({ program }: Setting, effect: Effect, at: FramePoint, facing: Facing, born: Micros): Playing | null {
  const cast = program.cast(effect.play, facing);
  if (!cast) return null;
  const angle = (angleOfFacing(facing) * Math.PI) / 180;
  const plays = Number.isFinite(cast.timeline.end) ? cast.timeline.end : cast.timeline.firstPass;
  const flies = effect.speed > 0 && effect.reach > 0 ? (effect.reach / effect.speed) * 1_000_000 : plays;
  return {
    effect,
    cast,
    born,
    gone: born + Math.round(flies),
    ...at,
    vx: Math.cos(angle) * effect.speed,
    vy: Math.sin(angle) * effect.speed,
  };
}

/** What an effect shows at a time, and where. */
export function effectAt({ clips }: Pick<Setting, "clips">, { cast, born, x, y, vx, vy }: Playing, at: Micros): Standing | null {
  const gone = (at - born) / 1_000_000;
  // An effect that flies longer than its clip lasts keeps showing it.
  const { end, firstPass } = cast.timeline;
  const time = at - born < end || end === Number.POSITIVE_INFINITY ? at - born : (at - born) % Math.max(1, firstPass);
  const { step } = cast.timeline.shownAt(time);
  const frame = clips.get(cast.clip)?.steps[step]?.frame;
  return frame === undefined ? null : { frame, mirror: cast.mirror, x: x + vx * gone, y: y + vy * gone };
}

const NONE: Playing[] = [];

/** Effects started by events of the extras, after `from` and up to `until`. */
export function spitting(setting: Setting, from: Micros, until: Micros): Playing[] {
  const { project, program, stage } = setting;
  if (stage.effects.length === 0) return NONE;
  return stage.extras.flatMap((extra) => {
    const cast = program.cast(extra.play, extra.facing);
    const clip = cast && setting.loud.has(cast.clip) ? setting.clips.get(cast.clip) : undefined;
    if (!cast || !clip) return NONE;
    return [...cast.timeline.entries(from, until)].flatMap(({ at, step: entered }) => {
      const step = clip.steps[entered];
      return (step?.events ?? []).flatMap((name) =>
        stage.effects.flatMap((effect) => {
          if (effect.event !== name || !step) return [];
          const standing = { frame: step.frame, mirror: cast.mirror, x: extra.x, y: extra.y };
          return startOf(setting, effect, pointOf(project, standing, effect.point), extra.facing, at) ?? [];
        }),
      );
    });
  });
}

/** The extras of a stage at a time. */
export function extraAt({ clips, program }: Setting, { play, facing, x, y }: Stage["extras"][number], at: Micros): Standing | null {
  const cast = program.cast(play, facing);
  if (!cast) return null;
  const { step, visible } = cast.timeline.shownAt(at);
  const frame = visible ? clips.get(cast.clip)?.steps[step]?.frame : undefined;
  return frame === undefined ? null : { frame, mirror: cast.mirror, x, y };
}
