/**
 * Plays the clips and actions of a caravan-atlas file: says which frame to draw, never draws.
 *
 * Exact by construction: time is kept in whole microseconds, what is left over when a step ends goes into the next, and a long pause is
 * caught up, events included. The rules stand in docs/formats/playback.md; they are the core's own, bundled into this package when it is
 * built.
 */
import { AT_START, advanced, isOver, type Playhead, passed, timeAt } from "@caravan/core/playback";
import type { Atlas, AtlasClip, FacingName } from "./atlas";
import { checkAtlas, checkedMs, type Fired, fire, type Laid, lay, own, petalOf, shownAt, unknownName } from "./atlas-clips";
import { NOTHING, type Now } from "./now";

export type {
  Atlas,
  AtlasAction,
  AtlasBehaviour,
  AtlasClip,
  AtlasData,
  AtlasFrame,
  AtlasInput,
  AtlasPage,
  AtlasRule,
  FacingName,
} from "./atlas";
export type { Now } from "./now";

/** The names that an atlas of known type can play: its actions and its clips. */
export type PlayableName<A extends Atlas> = keyof (A["clips"] & NonNullable<A["actions"]>) & string;

export interface PlayOptions {
  facing?: FacingName;
  /** Starts over even if this action or clip is already playing. */
  restart?: boolean;
}

export interface Player<A extends Atlas = Atlas> {
  /**
   * Starts an action, or a clip by its own name. What is already playing continues and only turns; what has ended restarts. Throws for
   * unknown names.
   */
  play(name: PlayableName<A>, options?: PlayOptions): void;
  /** Moves on by milliseconds since the last call; negative ones count as 0. Throws a RangeError on NaN and Infinity. */
  advance(ms: number): Now<A>;
}

/**
 * `atlas` is the parsed atlas file; it is read, never changed. Throws an Error for anything but an atlas file, and for a version newer than
 * this player.
 */
export function createPlayer<A extends Atlas>(atlas: A): Player<A> {
  const laid = new Map<string, Laid>();
  checkAtlas(atlas);
  let playing: string | null = null;
  let shown: string | null = null;
  let facing: FacingName = "s";
  let current: Laid | null = null;
  let mirror = false;
  let playhead: Playhead = AT_START;

  const layOut = (name: string): Laid => {
    let found = laid.get(name);
    if (!found) {
      found = lay(own(atlas.clips, name) as AtlasClip);
      laid.set(name, found);
    }
    return found;
  };

  return {
    play(name, options = {}) {
      if (!own(atlas.actions, name) && !own(atlas.clips, name))
        throw unknownName("action or clip", name, [...Object.keys(atlas.actions ?? {}), ...Object.keys(atlas.clips)]);
      const wanted = options.facing ?? facing;
      const petal = petalOf(atlas, name, wanted);
      if (!petal) throw new Error(`The action "${name}" has no clip to play.`);
      const next = layOut(petal.clip);
      facing = wanted;
      if (name !== playing || options.restart || (current && isOver(current.timeline, playhead))) playhead = AT_START;
      playing = name;
      current = next;
      shown = petal.clip;
      mirror = petal.mirror;
    },

    advance(ms) {
      checkedMs(ms);
      if (!current) return { ...NOTHING, events: [], values: [] } as Now<A>;
      playhead = advanced(playhead, ms * 1000);
      const now = passed(current.timeline, playhead);
      const fired: Fired = { events: [], values: [] };
      // What has no events is not walked through after a long pause.
      if (current.hasEvents) for (const { step } of now.entries) fire(fired, current, step);
      playhead = now.told;
      return { ...shownAt(current, timeAt(playhead)), clip: shown, mirror, ...fired } as Now<A>;
    },
  };
}
