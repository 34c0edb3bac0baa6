import { cutByGrid, gridOf } from "../cut";
import {
  CaravanError,
  type Cut,
  checkedName,
  type Frame,
  type FramePoint,
  freeName,
  type Project,
  type Source,
  type SourceId,
  sourceById,
} from "../model";
import type { Coverage } from "../raster";
import { counted, edit } from "./edit";

/** A picture that came in, already stored by its hash. */
export interface ArrivedPicture {
  /** File name as it came, with its ending. */
  readonly fileName: string;
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
}

/** Adds pictures as uncut sources at the end. Names and paths already taken get a number. */
export const addSources = edit(
  (_project, pictures: readonly ArrivedPicture[]) =>
    pictures.length === 1 ? `add ${pictures[0]?.fileName}` : `add ${counted(pictures.length, "picture")}`,
  (project, pictures) => {
    if (pictures.length === 0) return project;
    const names = new Set(project.sources.map((source) => source.name));
    const files = new Set(project.sources.map((source) => source.file));
    let number = project.sources.reduce((most, { id }) => Math.max(most, Number(id.slice(1))), 0);
    const added = pictures.map(({ fileName, sha256, width, height }): Source => {
      const stem = fileStem(fileName);
      const name = freeName(stem, names);
      names.add(name);
      const file = freeFile(stem, files);
      files.add(file);
      return { id: `s${++number}` as SourceId, name, file, sha256, width, height, cut: null, frames: [] };
    });
    return { ...project, sources: [...project.sources, ...added] };
  },
);

/** A file's name without folders and ending, fit to be a name and part of a path. */
function fileStem(fileName: string): string {
  const stem = (fileName.split(/[\\/]/).pop() ?? "").replace(/\.[^.]*$/, "");
  const fit = stem
    .replace(/[\\/:*?"<>|\p{Cc}\u2028\u2029]/gu, "-")
    .trim()
    .slice(0, 120);
  return fit === "" || /^\.+$/.test(fit) ? "picture" : fit;
}

function freeFile(stem: string, taken: ReadonlySet<string>): string {
  const path = (name: string) => `art/${name}.png`;
  const stems = new Set([...taken].map((file) => file.replace(/^art\//, "").replace(/\.png$/, "")));
  return path(freeName(stem, stems));
}

/** Throws `name-taken` if another source has the name. */
export const renameSource = edit(
  (project, id: SourceId, name: string) => `rename ${sourceById(project, id).name} to ${name.trim()}`,
  (project, id, wanted) => {
    const name = checkedName(wanted, "source name");
    const source = sourceById(project, id);
    if (source.name === name) return project;
    if (project.sources.some((each) => each.name === name))
      throw new CaravanError("name-taken", `source "${name}"`, "There is already a source of this name.", "Choose another name.");
    return withSource(project, { ...source, name });
  },
);

/** Removes a source, and from clips the steps that show its frames. */
export const removeSource = edit(
  (project, id: SourceId) => {
    const steps = project.clips.reduce((sum, clip) => sum + clip.steps.filter((step) => step.frame.startsWith(`${id}/`)).length, 0);
    return `remove ${sourceById(project, id).name}${steps > 0 ? ` and ${counted(steps, "step")}` : ""}`;
  },
  (project, id) => ({
    ...project,
    sources: project.sources.filter((source) => source.id !== sourceById(project, id).id),
    clips: project.clips.map((clip) => {
      const steps = clip.steps.filter((step) => !step.frame.startsWith(`${id}/`));
      return steps.length === clip.steps.length
        ? clip
        : { ...clip, steps, loopFrom: Math.min(clip.loopFrom, Math.max(0, steps.length - 1)) };
    }),
  }),
);

/**
 * Cuts a source along a grid. Frames that stay at their column and row keep what was decided about them: name, origin,
 * dropped; so do those that come back. Clips keep their steps, also of frames that are gone now.
 * `coverage` is the picture's. Throws what `gridOf` throws.
 */
export const cutSource = edit(
  (project, id: SourceId, cut: Cut, _coverage: Coverage) =>
    cut.by === "cell"
      ? `cut ${sourceById(project, id).name} into ${cut.cell.w} × ${cut.cell.h} px cells`
      : `cut ${sourceById(project, id).name} into ${cut.columns} × ${cut.rows} cells`,
  (project, id, cut, coverage) => {
    const source = sourceById(project, id);
    const frames = framesOfCut(source, cut, coverage);
    if (sameCut(source.cut, cut) && sameFrames(source.frames, frames)) return project;
    return withSource(project, { ...source, cut, frames });
  },
);

/** Replaces a source's picture by changed art and runs its recipe again. Throws what `gridOf` throws. */
export const refreshSource = edit(
  (project, id: SourceId, _picture: Omit<ArrivedPicture, "fileName">, _coverage: Coverage) =>
    `take in the changed art of ${sourceById(project, id).name}`,
  (project, id, { sha256, width, height }, coverage) => {
    const source = sourceById(project, id);
    if (source.sha256 === sha256) return project;
    const changed = { ...source, sha256, width, height };
    return withSource(project, source.cut ? { ...changed, frames: framesOfCut(changed, source.cut, coverage) } : changed);
  },
);

function framesOfCut(source: Source, cut: Cut, coverage: Coverage): Frame[] {
  const grid = gridOf({ w: source.width, h: source.height }, cut, source.name);
  const before = new Map(source.frames.map((frame) => [frame.key, frame]));
  return cutByGrid(coverage, grid, cut.keepEmpty).cells.map(({ column, row, number, rect, empty }): Frame => {
    const key = `c${column}r${row}`;
    const { name, origin, dropped } = before.get(key) ?? {};
    return {
      key,
      column,
      row,
      number,
      rect,
      ...(empty ? { empty } : {}),
      ...(name !== undefined ? { name } : {}),
      ...(origin ? { origin } : {}),
      ...(dropped ? { dropped } : {}),
    };
  });
}

function sameCut(a: Cut | null, b: Cut): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

function sameFrames(a: readonly Frame[], b: readonly Frame[]): boolean {
  return a.length === b.length && a.every((frame, k) => JSON.stringify(frame) === JSON.stringify(b[k]));
}

/** Where the frames of a source stand; null goes back to the middle of each frame's bottom edge. */
export const setSourceOrigin = edit(
  (project, id: SourceId, _origin: FramePoint | null) => `move the origin of ${sourceById(project, id).name}`,
  (project, id, origin) => {
    const { origin: before, ...source } = sourceById(project, id);
    if (before?.x === origin?.x && before?.y === origin?.y) return project;
    return withSource(project, origin ? { ...source, origin: checkedOrigin(origin) } : source);
  },
);

function checkedOrigin({ x, y }: FramePoint): FramePoint {
  if (![x, y].every((each) => Number.isInteger(each * 2) && Math.abs(each) <= 32_768))
    throw new CaravanError("bad-number", "origin", "An origin is in whole or half pixels.", "Type a number such as 16 or 15.5.");
  return { x, y };
}

/** The project with this source in the place of the one with its id. */
export function withSource(project: Project, source: Source): Project {
  return { ...project, sources: project.sources.map((each) => (each.id === source.id ? source : each)) };
}
