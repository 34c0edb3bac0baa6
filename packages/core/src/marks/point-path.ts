import { type Clip, findFrame, type MarkName, type MarkPoint, originOf, type Project } from "../model";
import { pointIn } from "./frame-marks";

/** Traces a point through the steps of a clip, relative to each frame's origin, in pixels; null on steps whose frame is missing or lacks it. */
export function pointPath(project: Project, { steps }: Pick<Clip, "steps">, name: MarkName): (MarkPoint | null)[] {
  return steps.map(({ frame }) => {
    const found = findFrame(project, frame);
    const point = found && pointIn(found.frame.marks, name);
    if (!found || !point) return null;
    const { x, y } = originOf(found.source, found.frame);
    return { ...point, x: point.x - x, y: point.y - y };
  });
}
