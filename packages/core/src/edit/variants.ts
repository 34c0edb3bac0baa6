/** Makes the same movement in other colours: new frames and clips, named after the palette. */
import {
  CaravanError,
  type Clip,
  type ClipName,
  clipNamed,
  counted,
  type Frame,
  type FrameRef,
  findFrame,
  fittedName,
  frameName,
  frameRef,
  freeName,
  type Piece,
  type Project,
  paletteNamed,
  pictureOf,
} from "../model";
import { t } from "../words";
import { actionsInOtherColours } from "./actions-in-other-colours";
import { edit } from "./edit";
import { withSource } from "./with-source";

/**
 * Copies clips so that every piece in the colours that a palette replaces wears that palette; other pieces stay. Actions whose clips are
 * all included are copied too. Throws `bad-call` for a palette that replaces none, and for clips of frames that are not assembled;
 * `not-found`.
 */
export const addVariants = edit(
  (_project, clips: readonly ClipName[], palette: string) =>
    t("make {clips} in {palette}", { clips: counted(clips.length, "clip"), palette }),
  (project, names, palette): Project => {
    const { of } = paletteNamed(project, palette);
    if (of === undefined)
      throw new CaravanError(
        "bad-call",
        t('palette "{palette}"', { palette }),
        t("It replaces no other palette, so nothing would change colour."),
        t("Choose what it replaces."),
      );
    const clips = names.map((name) => clipNamed(project, name));
    let next = project;
    const twins = new Map<FrameRef, FrameRef>();
    for (const ref of new Set(clips.flatMap(({ steps }) => steps.map(({ frame }) => frame)))) {
      const found = findFrame(next, ref);
      if (!found?.frame.pieces)
        throw new CaravanError(
          "bad-call",
          ref,
          t("It is not put together from pieces, so it cannot wear a palette."),
          t("Choose clips that use only such frames."),
        );
      const { source, frame } = found;
      const keys = source.frames.map(({ key }) => Number(key.slice(1)));
      const number = source.frames.reduce((most, each) => Math.max(most, each.number), -1) + 1;
      const name = fittedName(`${frameName(source, frame)}-${palette}`, 120);
      const twin: Frame = {
        ...frame,
        key: `a${Math.max(-1, ...keys) + 1}`,
        column: source.frames.length,
        number,
        ...(name ? { name: freeName(name, new Set(source.frames.map((each) => frameName(source, each)))) } : {}),
        pieces: (frame.pieces ?? []).map(
          (piece): Piece => (piece.palette === undefined || piece.palette === of ? { ...piece, palette } : piece),
        ),
      };
      twins.set(ref, frameRef(source, twin));
      next = withSource(next, { ...source, frames: [...source.frames, twin] });
    }
    const dressed = new Map<ClipName, ClipName>();
    for (const clip of clips) {
      const name = freeName(
        fittedName(`${clip.name}-${palette}`, 120) ?? "variant",
        new Set(next.clips.map((each) => each.name)),
      ) as ClipName;
      const made: Clip = { ...clip, name, steps: clip.steps.map((step) => ({ ...step, frame: twins.get(step.frame) ?? step.frame })) };
      const at = next.clips.findIndex((each) => each.name === clip.name) + 1;
      next = { ...next, clips: next.clips.toSpliced(at, 0, made) };
      dressed.set(clip.name, name);
    }
    return { ...next, actions: [...next.actions, ...actionsInOtherColours(next, palette, dressed)] };
  },
);

/** Clips that a palette can recolour: they use assembled frames only, some with the colours that it replaces. */
export function clipsToDress(project: Project, palette: string): ClipName[] {
  const of = project.palettes?.find(({ name }) => name === palette)?.of;
  if (of === undefined) return [];
  const isDrawnIn = ({ palette: worn }: Piece) => worn === undefined || worn === of;
  return project.clips.flatMap(({ name, steps }) => {
    const frames = steps.map(({ frame }) => findFrame(project, frame)?.frame.pieces);
    return frames.length > 0 && frames.every((pieces) => pieces?.some(isDrawnIn)) ? [name] : [];
  });
}

/** The clips that show the same as a clip does, in whichever colours, itself among them, in the project's order. */
export function clipsAlike(project: Project, clip: Clip): ClipName[] {
  const frames = clip.steps.map(({ frame }) => drawingOf(project, frame));
  if (frames.some((each) => each === null)) return [clip.name];
  return project.clips.flatMap(({ name, steps }) =>
    steps.length === frames.length && steps.every(({ frame }, k) => drawingOf(project, frame) === frames[k]) ? [name] : [],
  );
}

/** A text for what a frame shows, ignoring colours, equal for equal frames. Null for a missing one. */
function drawingOf(project: Project, ref: FrameRef): string | null {
  const found = findFrame(project, ref);
  if (!found) return null;
  const { source, frame } = found;
  if (frame.pieces)
    return JSON.stringify([frame.size, frame.pieces.map(({ palette: _worn, group: _group, ...piece }) => Object.entries(piece).sort())]);
  const { x, y, w, h } = frame.rect;
  return JSON.stringify([pictureOf(source, frame).sha256, x, y, w, h, frame.turned ?? null]);
}
