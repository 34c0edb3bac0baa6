/** Changes the art of the test project's sheet as the studio does. */
import { type Drawings, placeOf, strayedFrames, withFoundPlaces } from "../frame-identity";
import { type Project, type Source, sourceById } from "../model";
import { coverageOf, drawingsIn, findDrawings, type Pixels } from "../raster";
import { refreshSource } from "./cutting";
import { PORTER } from "./project.fixture";

export const porter = (project: Project): Source => sourceById(project, PORTER);

/** What the studio does when art has changed: cuts anew, compares drawings, and cuts anew with what it learned. */
export function refreshed(project: Project, before: Pixels, after: Pixels): { project: Project; drawings: Drawings } {
  const picture = { sha256: "f".repeat(64), width: after.width, height: after.height };
  const plain = porter(refreshSource(project, PORTER, [picture], [coverageOf(after)]));
  const found = (source: Source, pixels: Pixels, nameOf: (frame: Source["frames"][number]) => string) => {
    const drawings = drawingsIn(
      pixels,
      source.frames.map(({ rect }) => rect),
    );
    return new Map(source.frames.flatMap((frame, k) => (drawings[k] ? [[nameOf(frame), drawings[k]] as const] : [])));
  };
  const seen = { before: found(porter(project), before, ({ key }) => key), after: found(plain, after, placeOf) };
  const strayed = strayedFrames(porter(project), seen);
  const rects = strayed.map(({ rect }) => rect);
  const drawings = withFoundPlaces(seen, strayed, findDrawings(before, rects, after));
  return { project: refreshSource(project, PORTER, [picture], [coverageOf(after)], drawings), drawings };
}
