/** Adds incoming art as sources, with whatever is known at once: background, cut, clips. */

import type { NewFrame } from "../frame-identity";
import {
  type Action,
  type ActionName,
  addTakenPaths,
  type Clearing,
  type ClipName,
  type Cut,
  counted,
  FACINGS_OF,
  type Facing,
  fittedName,
  frameRef,
  freeName,
  freePicturePaths,
  type GrowingPaths,
  type Picture,
  type Project,
  refuseTooMany,
  type Source,
  type SourceId,
  sourceById,
  takenPaths,
  type Ways,
} from "../model";
import type { Coverage } from "../raster";
import { t } from "../words";
import { addAction, mirrorMissing, setPetal, setWays } from "./actions";
import { type ArrivedClip, type ArrivedClips, noArrivedClips, withArrivedClip } from "./arrived-clips";
import { cutByMetadata } from "./by-metadata";
import type { StoredPicture } from "./changed-art";
import { renameClip } from "./clips";
import { cutSource, framesOfPictures } from "./cutting";
import { edit } from "./edit";
import { layerFor, type NewLayer } from "./layers";
import { nameFromFile } from "./name-from-file";
import { freeSourceId } from "./source-id";

/** A picture that came in, already stored by its hash. */
export interface ArrivedPicture {
  /** File name as it came, with its ending. */
  readonly fileName: string;
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
}

/** One source to be: a sheet, or the pictures of a series or an animation in order. */
export interface Arrival {
  /** What it is called, if its name is free. */
  readonly name: string;
  readonly pictures: readonly (Omit<ArrivedPicture, "fileName"> & Pick<Picture, "number" | "duration">)[];
  readonly clearing?: Clearing;
  /** Layers over its pictures, from below. */
  readonly layers?: readonly NewLayer[];
  /** How it is cut at once; a source of several pictures is always cut into them. */
  readonly cut?: Cut;
  /** The coverage of each picture, with its clearing and layers; needed if it is cut. */
  readonly coverages?: readonly Coverage[];
  /** Frames described by a metadata file. */
  readonly told?: readonly NewFrame[];
  /** Its clips: an animation's own times, or a metadata file's. Steps name frames by their index in the source's list. */
  readonly clips?: readonly ArrivedClip[];
}

/** One movement in several facings, each with a clip of the same drop. */
export interface ArrivedAction {
  readonly name: string;
  readonly ways: Ways;
  /** The clips' `ref`s. */
  readonly facings: Partial<Record<Facing, string>>;
  /** Whether missing facings are mirrored from across. */
  readonly mirror: boolean;
  /** Whether its clips are called after it and their facings, having no names of their own. */
  readonly namesClips: boolean;
}

/**
 * Adds everything in one drop, with the actions of its clips, as one undo step. Names and paths already taken get a number. An existing
 * action gains its missing facings, and those that were mirrored, unless a new one is already present. Throws `too-many-pictures`.
 */
export const takeIn = edit<[arrivals: readonly Arrival[], actions?: readonly ArrivedAction[]]>(
  (_project, arrivals) =>
    arrivals.length === 1
      ? t("add {name}", { name: arrivals[0]?.name ?? "" })
      : t("add {things}", {
          things: counted(arrivals.length, arrivals.every((each) => each.pictures.length === 1 && !each.cut) ? "picture" : "source"),
        }),
  (project, arrivals, actions = []) => {
    refuseTooMany(
      project,
      arrivals.reduce((sum, { pictures, layers = [] }) => sum + pictures.length * (1 + layers.length), 0),
    );
    const taken = takenIn(project);
    const arrived = { ...noArrivedClips(), taken: taken.clips };
    const whole = arrivals.reduce((next, arrival) => withArrival(next, arrival, taken, arrived), project);
    return withArrivedActions(whole, actions, arrived.named);
  },
);

/** What is taken in a project while a drop is added: found out once, because there may be thousands of arrivals. */
interface Taken {
  readonly clips: Set<string>;
  readonly sources: Set<string>;
  readonly paths: GrowingPaths;
  /** The number in the last source's id. */
  id: number;
}

function takenIn(project: Project): Taken {
  return {
    clips: new Set(project.clips.map(({ name }) => name)),
    sources: new Set(project.sources.map(({ name }) => name)),
    paths: takenPaths(project.sources),
    id: Number(freeSourceId(project).slice(1)) - 1,
  };
}

/** With the actions of clips that came in; those of others are left out. `named` is what clips are called here, by their refs. */
export function withArrivedActions(project: Project, actions: readonly ArrivedAction[], named: Map<string, ClipName>): Project {
  return actions.reduce((next, action) => withArrivedAction(next, action, named), project);
}

/** What becomes of an arriving action. */
interface ActionToBe {
  readonly name: ActionName;
  /** The action that it joins; null if it becomes one of its own. */
  readonly joined: Action | null;
  /** Whether that one has some of its clips already. */
  readonly isOwn: boolean;
}

/**
 * It joins the action that has one of its clips already, because one of the same name may be another figure's; else the one of its name, if
 * that lacks all its facings. `clips` are its facings, with the names of those clips that the project has.
 */
export function actionToBe(actions: readonly Action[], given: string, clips: ReadonlyMap<Facing, ClipName | undefined>): ActionToBe {
  const isIn = (each: Action, facing: Facing, clip: ClipName | undefined) =>
    clip !== undefined && each.facings[facing]?.clip === clip && !each.facings[facing].mirror;
  const own = actions.find((each) => [...clips].some(([facing, clip]) => isIn(each, facing, clip)));
  if (own) return { name: own.name, joined: own, isOwn: true };
  const wanted = fittedName(given, 120) ?? "action";
  const named = actions.find(({ name }) => name === wanted);
  if (named && [...clips.keys()].every((facing) => isFree(named, facing))) return { name: named.name, joined: named, isOwn: false };
  return { name: freeName(wanted, new Set(actions.map(({ name }) => name))) as ActionName, joined: null, isOwn: false };
}

/** A mirror only stands in for what was not drawn. */
function isFree({ facings }: Action, facing: Facing): boolean {
  return facings[facing] === undefined || facings[facing].mirror === true;
}

function withArrivedAction(project: Project, action: ArrivedAction, clips: Map<string, ClipName>): Project {
  const { ways, mirror, namesClips } = action;
  const facings = FACINGS_OF[ways].flatMap((facing) => {
    const ref = action.facings[facing];
    const clip = ref === undefined ? undefined : clips.get(ref);
    return ref === undefined || clip === undefined ? [] : [{ facing, ref, clip }];
  });
  if (facings.length === 0) return project;
  const { name, joined, isOwn } = actionToBe(project.actions, action.name, new Map(facings.map(({ facing, clip }) => [facing, clip])));
  let next = joined ? setWays(project, name, Math.max(ways, joined.ways) as Ways) : addAction(project, name, ways);
  for (const { facing, ref, clip } of facings) {
    if (joined && !isFree(joined, facing)) continue;
    let petal = clip;
    if (namesClips) {
      petal = freeName(`${name}-${facing}`, new Set(next.clips.flatMap((each) => (each.name === clip ? [] : [each.name])))) as ClipName;
      next = renameClip(next, clip, petal);
      clips.set(ref, petal);
    }
    next = setPetal(next, name, facing, { clip: petal });
  }
  // Who left its missing facings missing wants no mirrors.
  const isMirrored = !isOwn || Object.values(joined?.facings ?? {}).some((petal) => petal.mirror);
  return mirror && isMirrored ? mirrorMissing(next, name) : next;
}

function withArrival(project: Project, arrival: Arrival, taken: Taken, arrived: ArrivedClips): Project {
  const stem = nameFromFile(arrival.name);
  const name = freeName(stem, taken.sources);
  const numbers = arrival.pictures.flatMap(({ number }) => number ?? []);
  const numbered = numbers.length === arrival.pictures.length && numbers.length > 1 ? numbers : undefined;
  const paths = freePicturePaths(stem, arrival.pictures.length, taken.paths, numbered);
  const pictures = arrival.pictures.map(
    ({ sha256, width, height, duration }, k): Picture => ({
      ...{ file: paths[k] as string, sha256, width, height },
      ...(numbered ? { number: numbered[k] as number } : {}),
      ...(duration === undefined ? {} : { duration }),
    }),
  );
  const id = `s${++taken.id}` as SourceId;
  const { clearing, coverages = [], cut } = arrival;
  const plain: Source = { id, name, pictures, ...(clearing ? { clearing } : {}), cut: null, frames: [] };
  const bare = withArrivedLayers(project, plain, arrival.layers ?? []);
  const several = pictures.length > 1;
  const source: Source = several ? { ...bare, cut: { by: "pictures" }, frames: framesOfPictures(bare, coverages) } : bare;
  taken.sources.add(name);
  addTakenPaths(taken.paths, source);
  let next: Project = { ...project, sources: [...project.sources, source] };
  if (cut?.by === "metadata") next = cutByMetadata(next, id, cut, arrival.told ?? []);
  else if (cut && !several) next = cutSource(next, id, cut, coverages[0] as Coverage);
  const refs = sourceById(next, id).frames.map((frame) => frameRef({ id }, frame));
  for (const clip of arrival.clips ?? []) next = withArrivedClip(next, refs, clip, arrived);
  return next;
}

/** What decides on how an arrival's pictures look once they are a source's. */
export function sourceToBe({ pictures, layers, clearing }: Arrival): Pick<Source, "pictures" | "layers" | "clearing"> {
  const named = (each: readonly StoredPicture[]): Picture[] => each.map((picture) => ({ ...picture, file: "art/arriving.png" }));
  return {
    pictures: named(pictures),
    ...(layers ? { layers: layers.map((layer) => ({ ...layer, pictures: named(layer.pictures) })) } : {}),
    ...(clearing ? { clearing } : {}),
  };
}

function withArrivedLayers(project: Project, plain: Source, layers: readonly NewLayer[]): Source {
  let source = plain;
  for (const layer of layers) {
    // Includes the source, so that no two of its files get the same path.
    const known = { ...project, sources: [...project.sources, source] };
    const over = source.layers ?? [];
    source = { ...source, layers: [...over, layerFor(known, source, layer)] };
  }
  return source;
}

/** Adds pictures as uncut sources at the end. */
export const addSources = edit(
  (_project, pictures: readonly ArrivedPicture[]) =>
    pictures.length === 1
      ? t("add {name}", { name: pictures[0]?.fileName ?? "" })
      : t("add {pictures}", { pictures: counted(pictures.length, "picture") }),
  (project, pictures) =>
    pictures.length === 0
      ? project
      : takeIn(
          project,
          pictures.map(({ fileName, ...picture }) => ({ name: fileName, pictures: [picture] })),
        ),
);
