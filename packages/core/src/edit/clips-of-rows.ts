/** Makes many clips of a source in one edit: one for each row, or one for each group of frame names. */
import { facingOfName, type MatchedAction } from "../facing";
import {
  CaravanError,
  type Clip,
  type ClipName,
  checkedName,
  counted,
  type FrameRef,
  frameRef,
  PLAIN_LOOP,
  type Project,
  type SourceId,
  sourceById,
  USUAL_STEP,
} from "../model";
import { t } from "../words";
import { edit } from "./edit";
import { makeActions } from "./making-actions";

/** A row of a source and what its clip is to be called. */
export interface NamedRow {
  readonly row: number;
  readonly name: string;
}

/**
 * Makes a clip from each of the rows, in the given order, with its kept frames in tray order; and the actions matched by the clips' names.
 * Throws `bad-name`, `name-taken` or `nothing-picked`; then nothing has changed.
 */
export const clipsOfRows = edit<[id: SourceId, rows: readonly NamedRow[], actions?: readonly MatchedAction<ClipName>[]]>(
  (project, id, rows) => t("make {clips} of rows of {name}", { clips: counted(rows.length, "clip"), name: sourceById(project, id).name }),
  (project, id, rows, actions = []) => {
    const source = sourceById(project, id);
    const refs = new Map<number, FrameRef[]>();
    for (const frame of source.frames) if (!frame.dropped) refs.set(frame.row, [...(refs.get(frame.row) ?? []), frameRef(source, frame)]);
    return withClipsNamed(
      project,
      rows.map(({ row, name }) => ({ name, refs: refs.get(row) ?? [] })),
      actions,
    );
  },
);

/** Frames that belong together by name, without a clip yet. */
export interface NamedFrames {
  readonly name: string;
  readonly refs: readonly FrameRef[];
}

/**
 * Clips that could be made by names: one per source whose name contains a facing, and one per group of frames whose names differ only in a
 * final number, if there are several groups. Without those that already have a clip of that name.
 */
export function framesByNames({ sources, clips }: Pick<Project, "sources" | "clips">): NamedFrames[] {
  const taken = new Set<string>(clips.map(({ name }) => name));
  const found: NamedFrames[] = [];
  const add = (name: string, refs: readonly FrameRef[]) => {
    if (name === "" || taken.has(name) || refs.length === 0) return;
    taken.add(name);
    found.push({ name, refs });
  };
  for (const source of sources) {
    const kept = source.frames.filter(({ dropped }) => !dropped);
    const groups = new Map<string, FrameRef[]>();
    for (const frame of kept) {
      const stem = frame.name?.replace(/[\s\-_./]*\d+$/, "");
      if (stem !== undefined && stem !== "") groups.set(stem, [...(groups.get(stem) ?? []), frameRef(source, frame)]);
    }
    if (groups.size > 1) for (const [name, refs] of groups) add(name, refs);
    else if (facingOfName(source.name).facing !== null)
      add(
        source.name,
        kept.map((frame) => frameRef(source, frame)),
      );
  }
  return found;
}

/** Makes actions by names, and first the clips that they need of frames that belong together by name. Throws as `clipsOfRows` does. */
export const makeActionsByNames = edit(
  (_project, matched: readonly MatchedAction<ClipName>[], _frames: readonly NamedFrames[]) =>
    t("make {actions} by name", { actions: counted(matched.length, "action") }),
  (project, matched, frames) => {
    const wanted = new Set<string>(matched.flatMap(({ facings }) => Object.values(facings)));
    return withClipsNamed(
      project,
      frames.filter(({ name }) => wanted.has(name)),
      matched,
    );
  },
);

function withClipsNamed(project: Project, named: readonly NamedFrames[], actions: readonly MatchedAction<ClipName>[]): Project {
  const taken = new Set<string>(project.clips.map((clip) => clip.name));
  const made = named.map(({ name: wanted, refs }): Clip => {
    const name = checkedName(wanted, t("clip name")) as ClipName;
    if (taken.has(name))
      throw new CaravanError(
        "name-taken",
        t('clip "{name}"', { name }),
        t("There is already a clip of this name."),
        t("Choose another name."),
      );
    if (refs.length === 0)
      throw new CaravanError(
        "nothing-picked",
        t('clip "{name}"', { name }),
        t("It would have no frames."),
        t("Restore frames of the row first."),
      );
    taken.add(name);
    return { ...PLAIN_LOOP, name, steps: refs.map((frame) => ({ frame, duration: USUAL_STEP })) };
  });
  const next = made.length === 0 ? project : { ...project, clips: [...project.clips, ...made] };
  return actions.length === 0 ? next : makeActions(next, actions);
}
