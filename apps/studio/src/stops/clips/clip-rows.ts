/** Groups the list at Clips: consecutive clips of one action stand under its name, each with its facing. */

import { type Action, type Clip, type Facing, facingsPresent } from "@caravan/core/model";
import type { Heading, Row } from "../../ui/row-list";
import { t } from "../../ui/words";
import { secondsInWords, totalOf } from "./pace-words";

/** A clip's place in the actions: the first that shows it, and its unmirrored facing there. */
interface Place {
  readonly action: Action;
  readonly facing: Facing;
}

/** The heading of an action's rows, with their number. */
export type HeadingOf = (action: Action, count: number) => Heading;

export function clipRows(clips: readonly Clip[], actions: readonly Action[], headingOf: HeadingOf): Row[] {
  const places = placesOf(actions);
  const rows: Row[] = [];
  for (let from = 0; from < clips.length; ) {
    const action = places.get((clips[from] as Clip).name)?.action;
    let end = from + 1;
    while (action && end < clips.length && places.get((clips[end] as Clip).name)?.action === action) end++;
    const under = action && end - from > 1 ? headingOf(action, end - from) : undefined;
    for (const clip of clips.slice(from, end)) rows.push(rowOf(clip, places.get(clip.name), under));
    from = end;
  }
  return rows;
}

function rowOf(clip: Clip, place: Place | undefined, under: Heading | undefined): Row {
  // A long name is cut at the end, where the facing usually is: so the facing is shown separately.
  const facing = place && place.action.ways !== 1 ? `${place.facing.toUpperCase()} ` : "";
  const row = { id: clip.name, name: clip.name, fact: `${facing}${lengthInWords(clip)}` };
  return under ? { ...row, under } : row;
}

function placesOf(actions: readonly Action[]): ReadonlyMap<string, Place> {
  const places = new Map<string, Place>();
  for (const action of actions)
    for (const facing of facingsPresent(action)) {
      const petal = action.facings[facing];
      if (petal && !petal.mirror && !places.has(petal.clip)) places.set(petal.clip, { action, facing });
    }
  return places;
}

function lengthInWords(clip: Clip): string {
  if (clip.steps.length === 0) return t("empty");
  const time = secondsInWords(totalOf(clip));
  return clip.playback === "once" ? t("{time} once", { time }) : clip.playback === "pingpong" ? `${time} ↔` : time;
}
