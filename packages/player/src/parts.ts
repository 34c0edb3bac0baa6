/**
 * Gives the parts of what is playing: sprites attached to others, such as a lamp in a hand. The core's own rule, bundled into this
 * package when it is built, decides where they stand and what they show.
 */
import { type PartsWorld, placedParts } from "@caravan/core/parts";
import type { Atlas, AtlasClip, FacingName } from "./atlas";
import { FACINGS, type Laid, lay, own, petalOf } from "./atlas-clips";
import { createPlayer as createPlain, type Player as Plain } from "./index";
import type { Now } from "./now";

export * from "./index";

/** A part to draw. */
export interface PlacedPart<A extends Atlas = Atlas> {
  readonly name: string;
  readonly frame: keyof A["frames"] & string;
  /** Whether to mirror it left to right about its own origin. */
  readonly mirror: boolean;
  /** From the host's origin to its own, in the pixels of origins. */
  readonly x: number;
  readonly y: number;
  /** Over the host, or under it. */
  readonly front: boolean;
  /** Degrees to rotate it clockwise about its own origin, after mirroring; absent for none. */
  readonly angle?: number;
}

/** What plays, as returned by `advance` of a player or of a behaviour, and for how long. */
export interface PartsOf {
  readonly clip: string | null;
  readonly step: number;
  readonly mirror: boolean;
  readonly visible: boolean;
  readonly facing: FacingName;
  /** The time in its clip, in ms, and how long it has played, if that differs. */
  readonly ms: number;
  readonly sinceMs?: number;
}

/** Asks for the parts of what plays, in the order in which they are drawn: those that are not in front, then, over the host, the others. */
export function createParts<A extends Atlas>(atlas: A): (now: PartsOf) => PlacedPart<A>[] {
  const laid = new Map<string, Laid>();
  const layOut = (name: string): Laid => {
    const found = laid.get(name) ?? lay(own(atlas.clips, name) as AtlasClip);
    laid.set(name, found);
    return found;
  };
  const frameAt = (name: string) => own(atlas.frames, name);
  // The file's form; the types only say that it is read.
  const world = {
    parts: atlas.parts ?? [],
    shows: (action, clip) => Object.values(own(atlas.actions, action)?.facings ?? {}).some((petal) => petal?.clip === clip),
    cast: (play, facing, mirror) => {
      const petal = petalOf(atlas, play, facing);
      return petal && (own(atlas.actions, play) ? petal : { ...petal, mirror });
    },
    timeline: (clip) => layOut(clip).timeline,
    step: (clip, index) => own(atlas.clips, clip)?.steps[index],
    point: (frame, name) => own(frameAt(frame)?.points, name) ?? null,
    origin: (frame) => frameAt(frame)?.origin ?? { x: 0, y: 0 },
  } as PartsWorld;
  return ({ clip, step, mirror, visible, facing, ms, sinceMs = ms }) => {
    if (clip === null || !visible) return [];
    const [time, since] = [Math.round(ms * 1000), Math.round(sinceMs * 1000)];
    return placedParts(world, { clip, step, mirror, facing, time, since }) as PlacedPart<A>[];
  };
}

/** What to draw now, with the parts that hang on it. */
export type NowWithParts<A extends Atlas = Atlas> = Now<A> & { parts: PlacedPart<A>[] };

export interface Player<A extends Atlas = Atlas> extends Plain<A> {
  advance(ms: number): NowWithParts<A>;
}

/** As the player of `@caravan/player`, with parts. Throws as that does. */
export function createPlayer<A extends Atlas>(atlas: A): Player<A> {
  const player = createPlain(atlas);
  const partsOf = createParts(atlas);
  let playing: string | null = null;
  let facing: FacingName = "s";
  let elapsed = 0;
  let ended = false;
  return {
    play(name, options = {}) {
      player.play(name, options);
      // Continues and restarts together with the player.
      if (name !== playing || options.restart || ended) elapsed = 0;
      ended = false;
      playing = name;
      facing = options.facing ?? facing;
    },
    advance(ms) {
      const now = player.advance(ms);
      if (playing !== null) elapsed += Math.max(0, ms);
      ended = now.ended;
      return { ...now, parts: partsOf({ ...now, facing: FACINGS.includes(facing) ? facing : "s", ms: elapsed }) };
    },
  };
}
