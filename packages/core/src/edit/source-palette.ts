/** Drawn sheets in other colours: a palette that a source wears, and sources of the same pictures that wear another. */
import {
  CaravanError,
  type Clip,
  type ClipName,
  type FrameRef,
  fittedName,
  frameRef,
  freeName,
  isOfPieces,
  type Project,
  paletteNamed,
  type Source,
  type SourceId,
  sourceById,
} from "../model";
import { actionsInOtherColours } from "./actions-in-other-colours";
import { edit } from "./edit";
import { freeSourceId } from "./source-id";
import { withSource } from "./with-source";

/** Which palette the pictures of a source wear; null for the colours they are drawn in. Throws `bad-call` for a source of pieces, `not-found`. */
export const setSourcePalette = edit(
  (project, id: SourceId, palette: string | null) =>
    `colour ${sourceById(project, id).name} ${palette === null ? "as it is drawn" : `with ${palette}`}`,
  (project, id, palette) => {
    const { palette: before, ...source } = sourceById(project, id);
    refuseOfPieces(source);
    if ((before ?? null) === palette) return project;
    if (palette !== null) paletteNamed(project, palette);
    return withSource(project, palette === null ? source : { ...source, palette });
  },
);

/**
 * The same pictures in another palette, as a source of its own with the same frames, names and marks; clips and actions of its frames alone come
 * with it, all with the palette's name behind theirs. Throws `bad-call` for a source of pieces and a palette that stands for none, `not-found`.
 */
export const addSourceVariant = edit(
  (project, id: SourceId, palette: string) => `make ${sourceById(project, id).name} in ${palette}`,
  (project, id, palette): Project => {
    const source = sourceById(project, id);
    refuseOfPieces(source);
    if (paletteNamed(project, palette).of === undefined)
      throw new CaravanError(
        "bad-call",
        `palette "${palette}"`,
        "It stands for no other one, so nothing would change its colours.",
        "Say what it stands for.",
      );
    const behind = (name: string, taken: Iterable<string>) => freeName(fittedName(`${name}-${palette}`, 120) ?? "variant", new Set(taken));
    const names = new Set(project.sources.flatMap((each) => each.frames.flatMap(({ name }) => name ?? [])));
    const frames = source.frames.map((frame) => {
      if (frame.name === undefined) return frame;
      const name = behind(frame.name, names);
      names.add(name);
      return { ...frame, name };
    });
    const twin: Source = {
      ...source,
      id: freeSourceId(project),
      name: behind(
        source.name,
        project.sources.map(({ name }) => name),
      ),
      palette,
      frames,
    };
    const at = project.sources.indexOf(source) + 1;
    let next: Project = { ...project, sources: project.sources.toSpliced(at, 0, twin) };
    const refs = new Map<FrameRef, FrameRef>(source.frames.map((frame) => [frameRef(source, frame), frameRef(twin, frame)]));
    const dressed = new Map<ClipName, ClipName>();
    for (const clip of project.clips) {
      if (clip.steps.length === 0 || !clip.steps.every(({ frame }) => refs.has(frame))) continue;
      const name = behind(
        clip.name,
        next.clips.map((each) => each.name),
      ) as ClipName;
      const made: Clip = { ...clip, name, steps: clip.steps.map((step) => ({ ...step, frame: refs.get(step.frame) as FrameRef })) };
      next = { ...next, clips: next.clips.toSpliced(next.clips.findIndex((each) => each.name === clip.name) + 1, 0, made) };
      dressed.set(clip.name, name);
    }
    return { ...next, actions: [...next.actions, ...actionsInOtherColours(next, palette, dressed)] };
  },
);

function refuseOfPieces(source: Pick<Source, "cut" | "name">): void {
  if (isOfPieces(source))
    throw new CaravanError(
      "bad-call",
      `source "${source.name}"`,
      "Its frames are put together: their pieces wear palettes, each its own.",
      "Colour the pieces at Frames.",
    );
}
