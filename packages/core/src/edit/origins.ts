/** Edits where frames stand, for one frame or for all of a clip, an action, a source or the project. */
import { CaravanError, type ClipName, type FramePoint, type FrameRef, originOf, type Project, type SourceId, sourceById } from "../model";
import { t } from "../words";
import { edit } from "./edit";
import { withFrames } from "./with-frames";
import { withSource } from "./with-source";

/** Sets the common origin of a source's frames; null restores the middle of each frame's bottom edge. */
export const setSourceOrigin = edit(
  (project, id: SourceId, _origin: FramePoint | null) => t("move the origin of {name}", { name: sourceById(project, id).name }),
  (project, id, origin) => {
    const { origin: before, ...source } = sourceById(project, id);
    if (before?.x === origin?.x && before?.y === origin?.y) return project;
    return withSource(project, origin ? { ...source, origin: checkedOrigin(origin) } : source);
  },
);

/** Gives each frame its own origin. `of` names them for undo. Throws `bad-number` for a point that is not in half pixels. */
export const placeOrigins = edit(
  (_project, of: string, _origins: ReadonlyMap<FrameRef, FramePoint>) => t("place the origin of {of}", { of }),
  (project, _of, origins) => withOrigins(project, origins),
);

/** Gives frames the origins that steady a clip. Throws `bad-number` like `placeOrigins`. */
export const steadyClip = edit(
  (_project, clip: ClipName, _origins: ReadonlyMap<FrameRef, FramePoint>) => t("steady {clip}", { clip }),
  (project, _clip, origins) => withOrigins(project, origins),
);

function withOrigins(project: Project, origins: ReadonlyMap<FrameRef, FramePoint>): Project {
  return withFrames(project, new Set(origins.keys()), ({ frame }, ref) => {
    const { x, y } = checkedOrigin(origins.get(ref) as FramePoint);
    return frame.origin?.x === x && frame.origin.y === y ? frame : { ...frame, origin: { x, y } };
  });
}

/** Moves the origins of frames together, by half pixels or whole ones. */
export const nudgeOrigins = edit(
  (_project, of: string, _refs: readonly FrameRef[], _by: FramePoint) => t("move the origin of {of}", { of }),
  (project, _of, refs, by) => {
    if (by.x === 0 && by.y === 0) return project;
    return withFrames(project, new Set(refs), ({ frame, source }) => {
      const { x, y } = originOf(source, frame);
      return { ...frame, origin: checkedOrigin({ x: x + by.x, y: y + by.y }) };
    });
  },
);

/** Removes the frames' own origins, so that they use their source's. */
export const forgetOrigins = edit(
  (_project, of: string, _refs: readonly FrameRef[]) => t("reset the origin of {of}", { of }),
  (project, _of, refs) =>
    withFrames(project, new Set(refs), ({ frame }) => {
      if (!frame.origin) return frame;
      const { origin: _origin, ...rest } = frame;
      return rest;
    }),
);

function checkedOrigin({ x, y }: FramePoint): FramePoint {
  if (![x, y].every((each) => Number.isInteger(each * 2) && Math.abs(each) <= 32_768))
    throw new CaravanError("bad-number", t("origin"), t("An origin is in whole or half pixels."), t("Type a number such as 16 or 15.5."));
  return { x, y };
}
