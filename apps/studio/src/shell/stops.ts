/**
 * Table of the route's stops. To add one, make a folder under `stops/`, a row here, and an entry in `STOPS` in `project/view`, whose
 * order is the road's.
 */
import type { Finding } from "@caravan/core/check";
import type { Project } from "@caravan/core/model";
import type { Playing, PlayWish } from "../preview/playing";
import type { Stop, View } from "../project/view";
import { clipsStop } from "../stops/clips";
import { framesStop } from "../stops/frames";
import { marksStop } from "../stops/marks";
import { rehearseStop } from "../stops/rehearse";
import { shipStop } from "../stops/ship";
import { sourcesStop } from "../stops/sources";
import type { Part } from "../ui/part";

export interface StopParts {
  readonly title: string;
  readonly List: Part<object>;
  /** The work in the middle. It registers the stop's keys while it is shown (`ui/keys`). */
  readonly Surface: Part<object>;
  /** The selection's details, under the player. */
  readonly Details: Part<object>;
  /** A line of help at the bottom; it may depend on the current work. */
  readonly help: string | ((project: Project, view: View) => string);
  /** What the player plays here, null if there is nothing yet; null for a stop that animates its own surface and has no player. */
  readonly playing: ((project: Project, view: View, wish: PlayWish) => Playing | null) | null;
  /** What the road shows about it: how much there is, or what needs attention. */
  readonly state: (project: Project, findings: readonly Finding[] | null) => StopState;
}

export type StopState = string | { readonly trouble: string };

export const STOP_PARTS: Readonly<Record<Stop, StopParts>> = {
  sources: sourcesStop,
  frames: framesStop,
  clips: clipsStop,
  marks: marksStop,
  rehearse: rehearseStop,
  ship: shipStop,
};
