import type { MarkShape, Project } from "@caravan/core/model";
import { playingAtMarks } from "../../preview/playing";
import { chosenMark, type View } from "../../project/view";
import { t } from "../../ui/words";
import { screenOf } from "../screen-of";

const HELP: Readonly<Record<MarkShape | "origin", string>> = {
  origin: t("Drag to move the origin. Arrow keys nudge it by a pixel, with Alt by half of one; , and . change the step."),
  box: t(
    "Drag to draw a box, inside one to move it, with Alt to draw another; at its edge to resize it. Arrow keys nudge it, with Shift they resize it; , and . change the step.",
  ),
  point: t(
    "Click where the point is, or drag it. Arrow keys nudge it, with Alt by halves; A rotates it by 90°, dragging its pointer by any angle; , and . change the step.",
  ),
  outline: t(
    "Drag a corner to move it, an edge to add a corner, elsewhere to draw an outline. C selects the next corner, arrows nudge it, I inserts one, Del removes it.",
  ),
};

export const marksStop = {
  title: t("Marks"),
  ...screenOf(() => import("./screen")),
  help: (project: Project, view: View) => HELP[chosenMark(project, view)?.shape ?? "origin"],
  playing: playingAtMarks,
  state: ({ marks }: Project) => String(marks.length),
};
