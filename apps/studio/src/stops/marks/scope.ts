/**
 * Selects the frames that an origin applies to: the shown one, or all of a clip, an action, a source or the project. Pure, and tested.
 */

import {
  type Clip,
  clipsOfAction,
  type FrameRef,
  findFrame,
  frameName,
  frameRef,
  framesOfClips,
  keptRefs,
  type PlacedFrame,
  type Project,
} from "@caravan/core/model";
import { t } from "../../ui/words";

export const SCOPES = ["frame", "clip", "action", "source", "all"] as const;
export type OriginScope = (typeof SCOPES)[number];

export interface FramesInScope {
  /** As undo names them. */
  readonly name: string;
  readonly frames: readonly PlacedFrame[];
}

/** The frames of a scope around a step of a clip; missing and dropped ones are left out. */
export function framesInScope(project: Project, scope: OriginScope, clip: Clip, step: number): FramesInScope {
  const ref = clip.steps[step]?.frame;
  const shown = ref ? findFrame(project, ref) : null;
  switch (scope) {
    case "frame":
      return { name: shown ? frameName(shown.source, shown.frame) : t("the frame"), frames: placed(project, ref ? [ref] : []) };
    case "clip":
      return { name: clip.name, frames: placed(project, framesOfClips([clip])) };
    case "action": {
      const action = actionOf(project, clip);
      if (!action) return framesInScope(project, "clip", clip, step);
      return {
        name: t("the action {name}", { name: action.name }),
        frames: placed(project, framesOfClips(clipsOfAction(project, action))),
      };
    }
    case "source":
      return { name: shown?.source.name ?? t("the source"), frames: shown ? placed(project, keptRefs(shown.source)) : [] };
    case "all":
      return { name: t("all frames"), frames: placed(project, project.sources.flatMap(keptRefs)) };
  }
}

/** The first action that shows the clip. */
export function actionOf(project: Project, clip: Pick<Clip, "name">) {
  return project.actions.find(({ facings }) => Object.values(facings).some((petal) => petal.clip === clip.name)) ?? null;
}

export function refsOf({ frames }: FramesInScope): FrameRef[] {
  return frames.map(({ source, frame }) => frameRef(source, frame));
}

function placed(project: Project, refs: readonly FrameRef[]): PlacedFrame[] {
  return refs.flatMap((ref) => {
    const found = findFrame(project, ref);
    return found && !found.frame.dropped ? [found] : [];
  });
}
