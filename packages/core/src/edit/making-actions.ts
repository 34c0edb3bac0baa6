/** Makes actions from what exists: from clip names, from rows of a sheet or clip, and from art that was mirrored by hand. */
import { type MatchedAction, type NumberedFrom, roseFrom } from "../facing";
import {
  type Action,
  type ActionName,
  CaravanError,
  type Clip,
  type ClipName,
  clipNamed,
  clipsByFrame,
  counted,
  type Facing,
  type FrameRef,
  frameRef,
  freeName,
  type Project,
  type Source,
  type SourceId,
  type Step,
  sourceById,
  type Ways,
} from "../model";
import { withClipsBecome } from "../references";
import { t } from "../words";
import { addAction, mirrorMissing, newActionName, ordered, setPetal, withAction } from "./actions";
import { rowsOfClip } from "./clip-parts";
import { addClip } from "./clips";
import { edit } from "./edit";
import { dropFrames } from "./frames";

/**
 * Makes actions of clips that were matched by their names. An action that has the name already keeps what it has, and gets
 * the facings that it lacks.
 */
export const makeActions = edit(
  (_project, matched: readonly MatchedAction<ClipName>[]) => t("make {actions} by name", { actions: counted(matched.length, "action") }),
  (project, matched) => {
    let next = project;
    for (const { stem, ways, facings } of matched) {
      const petals = Object.fromEntries(Object.entries(facings).map(([facing, clip]) => [facing, { clip }])) as Action["facings"];
      const there = next.actions.find(({ name }) => name === stem);
      if (!there) {
        const action: Action = { name: newActionName(next, stem), ways, facings: ordered(ways, petals) };
        next = { ...next, actions: next.actions.concat(action) };
        continue;
      }
      const widest = Math.max(ways, there.ways) as Ways;
      next = withAction(next, there.name, { ...there, ways: widest, facings: ordered(widest, { ...petals, ...there.facings }) });
    }
    return next;
  },
);

/** Whether `makeActions` would change anything for a match: there is no action of its name, or it lacks one of the facings. */
export function addsFacings({ actions }: Pick<Project, "actions">, { stem, facings }: MatchedAction<ClipName>): boolean {
  const there = actions.find(({ name }) => name === stem);
  return !there || Object.keys(facings).some((facing) => !Object.hasOwn(there.facings, facing));
}

/** A row of a sheet, and the figure's facing in it. */
export interface RowFacing {
  readonly row: number;
  readonly facing: Facing;
}

/** Rows of a sheet that hold kept frames, from above. */
export function rowsOfSource({ frames }: Pick<Source, "frames">): number[] {
  return [...new Set(frames.filter(({ dropped }) => !dropped).map(({ row }) => row))].sort((a, b) => a - b);
}

/** The usual order of rows if the west side is mirrored: from the one facing the viewer around by the east. */
export function mirroredRows(ways: Ways, count: number): Facing[] {
  const side: readonly Facing[] = ways === 8 ? ["s", "se", "e", "ne", "n"] : ways === 4 ? ["s", "e", "n"] : ["e"];
  return side.slice(0, count);
}

/**
 * Makes clips from the rows of a sheet, named after the action and their facing, and an action from them; `mirror` fills missing facings
 * from the opposite side. Throws `bad-name` or `name-taken`.
 */
export const actionOfRows = edit(
  (_project, _source: SourceId, name: string, _ways: Ways, rows: readonly RowFacing[], _mirror: boolean) =>
    t("make the action {name} of {rows}", { name: name.trim(), rows: counted(rows.length, "row") }),
  (project, id, wanted, ways, rows, mirror) => {
    const source = sourceById(project, id);
    let next = addAction(project, wanted, ways);
    const { name } = next.actions.at(-1) as Action;
    for (const { row, facing } of rows) {
      const refs = source.frames.filter((frame) => frame.row === row && !frame.dropped).map((frame) => frameRef(source, frame));
      const clip = freeName(`${name}-${facing}`, new Set(next.clips.map((each) => each.name))) as ClipName;
      next = setPetal(addClip(next, refs, clip), name, facing, { clip });
    }
    return mirror ? mirrorMissing(next, name) : next;
  },
);

/**
 * Splits a clip into one per row of its frames' sheet, and makes an action from these: the first row faces `from.first`, the others follow
 * around the rose. The clips replace the original. Throws `bad-call` if its rows are not two, four or eight of equal length.
 */
export const rowsAsFacings = edit(
  (_project, name: ClipName, _from: NumberedFrom) => t("make the rows of {name} facings", { name }),
  (project, name, from) => {
    const clip = clipNamed(project, name);
    const rows = rowsOfClip(project, clip);
    const ways = facingsInRows(rows);
    if (ways === null)
      throw new CaravanError(
        "bad-call",
        t('clip "{name}"', { name }),
        t("Its rows are not 2, 4 or 8 of equal length."),
        t("Split it by rows instead."),
      );
    const order = roseFrom(ways, from);
    const taken = new Set<string>(project.clips.filter((each) => each !== clip).map((each) => each.name));
    const parts = rows.map((steps, k): Clip => {
      const part = freeName(`${name}-${order[k]}`, taken) as ClipName;
      taken.add(part);
      const loop = clip.steps[clip.loopFrom];
      return { ...clip, name: part, steps, loopFrom: Math.max(0, loop ? steps.indexOf(loop) : 0) };
    });
    const clips = project.clips.flatMap((each) => (each === clip ? parts : [each]));
    const facings = Object.fromEntries(parts.map((part, k) => [order[k], { clip: part.name }]));
    const action: Action = {
      name: freeName(name, new Set(project.actions.map((each) => each.name))) as ActionName,
      ways,
      facings: ordered(ways, facings),
    };
    const next = withClipsBecome({ ...project, clips }, new Map([[name, parts.map((part) => part.name)]]), "letGo");
    return { ...next, actions: [...next.actions, action] };
  },
);

/** Into how many facings rows of a clip look like being: two, four or eight of equal length, each of several steps. */
export function facingsInRows(rows: readonly (readonly Step[])[]): Ways | null {
  const [first] = rows;
  if (!first || first.length < 2 || rows.some(({ length }) => length !== first.length)) return null;
  return ([2, 4, 8] as const).find((ways) => ways === rows.length) ?? null;
}

/**
 * Uses mirroring for art that was mirrored by hand. In `pairs`, the second frame mirrors the first. A clip that shows the mirror images of
 * another's frames, in order, is replaced by a mirror in all actions; mirror images then in no clip are dropped. Whatever is still used
 * elsewhere stays.
 */
export const mirrorInstead = edit(
  (_project, pairs: readonly (readonly [FrameRef, FrameRef])[]) =>
    t("use mirrors for {images}", { images: counted(pairs.length, "mirror image") }),
  (project, pairs) => {
    const twin = new Map(pairs.flatMap(([a, b]) => [[a, b] as const, [b, a] as const]));
    const shown = (name: ClipName) => Object.values(clipNamed(project, name).steps).map(({ frame }) => frame);
    const inActions = new Set(project.actions.flatMap(({ facings }) => Object.values(facings).map(({ clip }) => clip)));
    const mirrorOfClip = new Map<ClipName, ClipName>();
    for (const { name } of project.clips)
      for (const other of project.clips) {
        if (other.name === name || mirrorOfClip.has(name)) break;
        const [own, before] = [shown(name), shown(other.name)];
        const mirrors = own.length === before.length && own.length > 0 && own.every((ref, k) => twin.get(ref) === before[k]);
        if (mirrors && inActions.has(name) && inActions.has(other.name) && !mirrorOfClip.has(other.name))
          mirrorOfClip.set(name, other.name);
      }
    const gone = new Set(mirrorOfClip.keys());
    const actions = project.actions.map((action): Action => {
      if (!Object.values(action.facings).some(({ clip }) => gone.has(clip))) return action;
      const facings = Object.entries(action.facings).map(([facing, petal]) => {
        const of = mirrorOfClip.get(petal.clip);
        if (!of) return [facing, petal];
        return [facing, petal.mirror ? { clip: of } : { clip: of, mirror: true }];
      });
      return { ...action, facings: Object.fromEntries(facings) };
    });
    const next = gone.size === 0 ? project : { ...project, actions, clips: project.clips.filter(({ name }) => !gone.has(name)) };
    const chosen = withClipsBecome(next, new Map([...mirrorOfClip].map(([from, to]) => [from, [to]])));
    const uses = clipsByFrame(chosen);
    return dropFrames(
      chosen,
      pairs.flatMap(([, mirrored]) => (uses.has(mirrored) ? [] : [mirrored])),
    );
  },
);
