/** Rebuilds drawn frames from their distinct tiles. */
import {
  CaravanError,
  drawnSize,
  type Frame,
  type FrameRef,
  frameRef,
  freeName,
  LARGEST_CANVAS,
  MOST_PIECES,
  type Piece,
  type Project,
  type Source,
  type SourceId,
  scaleOf,
  sourceById,
} from "../model";
import type { Parted } from "../tiles";
import { t } from "../words";
import { edit } from "./edit";
import { refuseOfPieces } from "./of-pieces";
import { freeSourceId } from "./source-id";

/** The frames of a source that can be parted: kept, drawn, and stored upright. */
export function framesToPart(source: Source): Frame[] {
  return source.frames.filter(({ dropped, empty, turned }) => !dropped && !empty && !turned);
}

/**
 * Adds two sources: one of the distinct tiles, cut from the same pictures, and one whose frames are assembled from them. `parted` covers
 * the rectangles of `framesToPart`, in their order. Throws `bad-number` for frames with too many pieces, `bad-call` for sources at another
 * scale.
 */
export const putTogetherFromTiles = edit(
  (project, id: SourceId, _parted: Parted) => t("rebuild {name} from tiles", { name: sourceById(project, id).name }),
  (project, id, { parts, frames: laid }): Project => {
    const source = sourceById(project, id);
    refuseOfPieces(source);
    if (scaleOf(source) !== 1)
      throw new CaravanError(
        "bad-call",
        source.name,
        t("It has a scale, so its tiles are not whole pixels of the project."),
        t("Set its scale to ×1 first."),
      );
    const frames = framesToPart(source);
    if (frames.length === 0 || parts.length === 0)
      throw new CaravanError("nothing-picked", source.name, t("It has no frames with anything drawn in them."), t("Cut it first."));
    if (
      laid.some((each) => each.length > MOST_PIECES) ||
      frames.some((frame) => Math.max(...Object.values(drawnSize(frame))) > LARGEST_CANVAS)
    )
      throw new CaravanError(
        "bad-number",
        source.name,
        t("A frame would have more than {mostPieces} tiles.", { mostPieces: MOST_PIECES }),
        t("Use larger tiles."),
      );
    const names = new Set(project.sources.map(({ name }) => name));
    const tilesName = freeName(t("{name} tiles", { name: source.name }), names, " ");
    const { origin, clearing, pictures } = source;
    const tiles: Source = {
      id: freeSourceId(project),
      name: tilesName,
      pictures,
      ...(clearing ? { clearing } : {}),
      cut: { by: "hand" },
      frames: parts.map(({ frame, x, y, w, h }, k): Frame => {
        const { rect, picture } = frames[frame] as Frame;
        return {
          key: `h${k}`,
          column: k,
          row: 0,
          number: k,
          rect: { x: rect.x + x, y: rect.y + y, w, h },
          ...(picture ? { picture } : {}),
        };
      }),
    };
    const withTiles: Project = { ...project, sources: [...project.sources, tiles] };
    const made: Source = {
      id: freeSourceId(withTiles),
      name: freeName(t("{name} of tiles", { name: source.name }), new Set([...names, tilesName]), " "),
      pictures: [],
      cut: { by: "pieces" },
      ...(origin ? { origin } : {}),
      frames: frames.map((frame, k): Frame => {
        const size = drawnSize(frame);
        const inset = frame.inset ?? { x: 0, y: 0 };
        const pieces = (laid[k] ?? []).map(
          ({ part, x, y, flip }): Piece => ({
            of: frameRef(tiles, tiles.frames[part] as Frame) as FrameRef,
            x: x + inset.x,
            y: y + inset.y,
            ...(flip ? { flip } : {}),
          }),
        );
        const { origin: own, marks } = frame;
        return {
          key: `a${k}`,
          column: k,
          row: 0,
          number: k,
          rect: { x: 0, y: 0, ...size },
          size,
          pieces,
          ...(own ? { origin: own } : {}),
          ...(marks ? { marks } : {}),
        };
      }),
    };
    return { ...withTiles, sources: [...withTiles.sources, made] };
  },
);
