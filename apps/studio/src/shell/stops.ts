import type { ComponentType } from "react";
import type { Stop } from "../project/view";
import { clipsStop } from "../stops/clips";
import { framesStop } from "../stops/frames";
import { marksStop } from "../stops/marks";
import { shipStop } from "../stops/ship";
import { sourcesStop } from "../stops/sources";

/** A stop of the route: what stands in the list, on the surface and under the player, and a word of help at the foot. */
export interface StopParts {
  readonly title: string;
  readonly List: ComponentType;
  readonly Surface: ComponentType;
  readonly Details: ComponentType;
  readonly help: string;
  /** Loads what it shows only now and then. */
  readonly loadRest?: () => Promise<unknown>;
}

export const STOP_PARTS: Record<Stop, StopParts> = {
  sources: sourcesStop,
  frames: framesStop,
  clips: clipsStop,
  marks: marksStop,
  ship: shipStop,
};
