import { CaravanError, checkedName, counted, type Frame, type FrameRef, findFrame, frameName } from "../model";
import { t } from "../words";
import { edit } from "./edit";
import { withFrames } from "./with-frames";

/** Drops frames from the tray. They are remembered, so that they can be restored and clips that show them can say so. */
export const dropFrames = edit(
  (_project, refs: readonly FrameRef[]) => t("drop {frames}", { frames: counted(refs.length, "frame") }),
  (project, refs) => withFrames(project, new Set(refs), ({ frame }) => (frame.dropped ? frame : { ...frame, dropped: true })),
);

/** Lets clips show the first of each group of frames instead of the others, and drops the others. */
export const keepFirstOf = edit(
  (_project, groups: readonly (readonly FrameRef[])[]) =>
    t("use one frame for {repeats}", {
      repeats: counted(
        groups.reduce((sum, group) => sum + group.length - 1, 0),
        "repeat",
      ),
    }),
  (project, groups) => {
    const firstFor = new Map(groups.flatMap(([first, ...others]) => others.map((other) => [other, first as FrameRef] as const)));
    if (firstFor.size === 0) return project;
    const clips = project.clips.map((clip) =>
      clip.steps.some(({ frame }) => firstFor.has(frame))
        ? { ...clip, steps: clip.steps.map((step) => ({ ...step, frame: firstFor.get(step.frame) ?? step.frame })) }
        : clip,
    );
    return dropFrames({ ...project, clips }, [...firstFor.keys()]);
  },
);

/** Brings dropped frames back to their places. */
export const restoreFrames = edit(
  (_project, refs: readonly FrameRef[]) => t("restore {frames}", { frames: counted(refs.length, "frame") }),
  (project, refs) =>
    withFrames(project, new Set(refs), ({ frame }) => {
      const { dropped, ...rest } = frame;
      return dropped ? rest : frame;
    }),
);

/** Names one frame; an empty name restores `<source>/<number>`. Throws `not-found`, `bad-name` or `name-taken`. */
export const renameFrame = edit(
  (_project, _ref: FrameRef, name: string) => (name.trim() ? t("name a frame {name}", { name: name.trim() }) : t("remove a frame's name")),
  (project, ref, wanted) => {
    const found = findFrame(project, ref);
    if (!found)
      throw new CaravanError("not-found", t("frame {ref}", { ref }), t("It is no longer part of the cut."), t("Choose another frame."));
    const { name: _before, ...plain } = found.frame;
    const next: Frame = wanted.trim() === "" ? plain : { ...plain, name: checkedName(wanted, t("frame name")) };
    const name = frameName(found.source, next);
    if (name === frameName(found.source, found.frame) && next.name === found.frame.name) return project;
    const twin = project.sources.some((source) =>
      source.frames.some((frame) => frame !== found.frame && frameName(source, frame) === name),
    );
    if (twin)
      throw new CaravanError(
        "name-taken",
        t('frame "{name}"', { name }),
        t("There is already a frame of this name."),
        t("Choose another name."),
      );
    return withFrames(project, new Set([ref]), () => next);
  },
);
