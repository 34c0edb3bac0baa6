/** Lists what can be dragged on a sheet: frames if it is cut by hand, regions if it is cut in regions, otherwise the part of its grid. */
import { sheetLook } from "@caravan/core/art";
import { cutSource, drawFrames, placeFrames } from "@caravan/core/edit";
import { type FrameRef, frameRef, type Rect, type Source } from "@caravan/core/model";
import type { Box } from "../../preview/box-gesture";
import { earlierCuts } from "../../project/earlier-cuts";
import { currentProject, edit } from "../../project/open-project";
import { pictureNow } from "../../project/pictures";
import { useView } from "../../project/view";
import { inBackground } from "../../ui/in-background";
import { say } from "../../ui/notices";
import { cutAfterDrag, partOfGrid } from "./grid-part-dragged";
import { cutOf, gridOfSource, isGrid } from "./recipe";
import { drawRegion, regionsOf, setRegion } from "./regions";

export interface DraggedBoxes {
  /** Set if boxes can only be taken by their edges, because there is something inside them. */
  readonly onlyEdges?: true;
  /** Set if a drag away from the edges draws nothing: it moves the sheet. */
  readonly drawsNone?: true;
  of(source: Source): readonly Box[];
  /** Makes what was dragged so; `id` is null for a new box. */
  done(source: Source, id: string | null, rect: Rect): void;
}

/** A region holds frames to be picked and often another region; what moves it are its numbers. */
export const regionBoxes: DraggedBoxes = {
  onlyEdges: true,
  of: (source) => regionsOf(source).map(({ area }, k) => ({ id: String(k), rect: area })),
  done(source, id, rect) {
    if (id === null) inBackground(drawRegion(source, rect));
    else setRegion(source, Number(id), { area: rect });
  },
};

/** What of one grid becomes frames: its edges leave rows and columns out, or move where it begins. */
export const gridPartBoxes: DraggedBoxes = {
  onlyEdges: true,
  drawsNone: true,
  of: (source) => (source.cut && isGrid(source) ? [{ id: "part", rect: partOfGrid(gridOfSource(source), cutOf(source)) }] : []),
  done(source, _id, rect) {
    const coverage = pictureNow(sheetLook(source))?.coverage;
    if (!coverage) return;
    const [cut, grid] = [cutOf(source), gridOfSource(source)];
    const next = cutAfterDrag(cut, grid, partOfGrid(grid, cut), rect);
    const error = edit(cutSource, source.id, next, coverage, earlierCuts(source, next));
    if (error) say({ tone: "trouble", text: error.message });
  },
};

export const frameBoxes: DraggedBoxes = {
  of: (source) => source.frames.filter(({ dropped }) => !dropped).map((frame) => ({ id: frameRef(source, frame), rect: frame.rect })),
  done(source, id, rect) {
    const error = id === null ? edit(drawFrames, source.id, [rect]) : edit(placeFrames, new Map([[id as FrameRef, rect]]));
    if (error) {
      say({ tone: "trouble", text: error.message });
      return;
    }
    const last = currentProject()
      .sources.find((each) => each.id === source.id)
      ?.frames.at(-1);
    useView.setState({ cursor: id !== null ? (id as FrameRef) : last ? frameRef(source, last) : null });
  },
};
