/**
 * What to make of all that came in one drop: series by their numbers, pictures with their metadata, animations, layers, sheets. Pure.
 */

import type { Arrival, ArrivedClip } from "@caravan/core/edit";
import type { NewFrame } from "@caravan/core/frame-identity";
import type { Unplaced } from "@caravan/core/metadata";
import { type Clearing, counted, microsFromMs, naturalOrder, type Reading, type SourceId } from "@caravan/core/model";
import type { Coverage, Ground } from "@caravan/core/raster";
import { findSeries, type Series } from "@caravan/core/series";
import type { ArtOf, Understood } from "../../workers/jobs";
import { framesAndClips } from "./frames-and-clips";

/** A picture that was read and stored. */
export interface TakenPicture {
  readonly sha256: string;
  readonly width: number;
  readonly height: number;
  readonly coverage: Coverage;
  readonly ground: Ground | null;
}

export type TakenArt = ArtOf<TakenPicture>;

export interface TakenItem {
  readonly path: string;
  readonly art: TakenArt;
}

/** A metadata file that was understood for one of the pictures, or for a source that is there already. */
export interface TakenDescription {
  readonly path: string;
  readonly of: { readonly picture: string } | { readonly source: SourceId; readonly name: string };
  readonly understood: Understood;
  readonly text: string;
}

/** One thing to bring in, as it is offered; what a person may choose about it stands in `choices`. */
export interface Proposal {
  readonly id: string;
  readonly name: string;
  readonly what: string;
  /** What is odd about it and worth knowing. */
  readonly notes: readonly string[];
  /** Pictures to show of it: the first, or some along it. */
  readonly shows: readonly TakenPicture[];
  readonly kind: "sheet" | "series" | "animation" | "layers" | "described" | "recut";
  readonly ground: Ground | null;
  /** What of it can be taken as one or apart, in words for both. */
  readonly parting?: { readonly whole: string; readonly apart: string };
  /** Records of its metadata file that do not fit, and why. */
  readonly unplaced?: readonly Unplaced[];
  /** Whether clips come with it. */
  readonly clips: readonly ArrivedClip[];
  /** Makes what comes in of the choices. */
  arrivals(choices: Choices): Arrival[];
  /** The metadata file that told the frames. */
  readonly description?: TakenDescription;
  /** For a source that is there already. */
  readonly recut?: { readonly source: SourceId; readonly reading: Reading; readonly file: string; readonly frames: readonly NewFrame[] };
}

export interface Choices {
  readonly include: boolean;
  readonly clear: boolean;
  readonly clips: boolean;
  /** A series as sheets of their own; groups of layers as the layers in them. */
  readonly apart: boolean;
}

export const USUAL_CHOICES: Choices = { include: true, clear: true, clips: true, apart: false };

/** In the order in which people would look for them: described, series, animations, layers, sheets; by name among each. */
export function proposalsFor(items: readonly TakenItem[], descriptions: readonly TakenDescription[]): Proposal[] {
  const described = new Map(descriptions.flatMap((each) => ("picture" in each.of ? [[each.of.picture, each] as const] : [])));
  const stills = items.filter(({ art, path }) => art.kind === "still" && !described.has(path));
  const { series, single } = findSeries(stills, ({ path }) => path);
  const others = items.filter(({ art }) => art.kind !== "still");
  return [
    ...items.flatMap((item) => {
      const description = described.get(item.path);
      return description ? [describedSheet(item, description)] : [];
    }),
    ...descriptions.flatMap((each) => ("source" in each.of ? [recutSource(each, each.of)] : [])),
    ...series.map(wholeSeries),
    ...others.sort((a, b) => naturalOrder(a.path, b.path)).map((item) => (item.art.kind === "animation" ? animation(item) : layers(item))),
    ...single.map(sheet),
  ];
}

function stillOf({ art }: TakenItem): TakenPicture {
  if (art.kind !== "still") throw new Error("Only stills are sheets.");
  return art.picture;
}

function stem(path: string): string {
  return path.split("/").pop() ?? path;
}

function clearingFor(ground: Ground | null, { clear }: Choices): { clearing?: Clearing } {
  return ground && clear ? { clearing: ground.clearing } : {};
}

function pictures(taken: readonly TakenPicture[]): Arrival["pictures"] {
  return taken.map(({ sha256, width, height }) => ({ sha256, width, height }));
}

function sheet(item: TakenItem): Proposal {
  const picture = stillOf(item);
  const { width, height, ground } = picture;
  return {
    id: item.path,
    name: stem(item.path),
    what: `A sheet of ${width} × ${height} px`,
    notes: [],
    shows: [picture],
    kind: "sheet",
    ground,
    clips: [],
    arrivals: (choices) => [{ name: stem(item.path), pictures: pictures([picture]), ...clearingFor(ground, choices) }],
  };
}

function wholeSeries({ name, members, missing, doubles }: Series<TakenItem>): Proposal {
  const taken = members.map(({ file }) => stillOf(file));
  const sizes = new Map<string, number>();
  for (const { width, height } of taken) sizes.set(`${width} × ${height}`, (sizes.get(`${width} × ${height}`) ?? 0) + 1);
  const [usual = "", count = 0] = [...sizes].sort((a, b) => b[1] - a[1])[0] ?? [];
  const odd = taken.length - count;
  const ground = taken.every((each) => each.ground) ? (taken[0]?.ground ?? null) : null;
  const first = members[0]?.number ?? 0;
  const last = members.at(-1)?.number ?? 0;
  return {
    id: members.map(({ file }) => file.path).join("\n"),
    name,
    what: `A series of ${taken.length} pictures, ${first} to ${last}, ${odd === 0 ? "each" : "most"} ${usual} px`,
    notes: [
      ...(missing.length > 0 ? [`Missing ${missing.length === 1 ? "is number" : "are numbers"} ${shortList(missing)}.`] : []),
      ...(doubles.length > 0 ? [`There twice, and left out: ${shortList(doubles.map(({ path }) => stem(path)))}.`] : []),
      ...(odd > 0 ? [`${odd === 1 ? "One has" : `${odd} have`} another size than the rest.`] : []),
    ],
    shows: taken,
    kind: "series",
    parting: { whole: "One series", apart: "Sheets of their own" },
    ground,
    clips: [],
    arrivals: (choices) =>
      choices.apart
        ? members.map(({ file }) => ({
            name: stem(file.path),
            pictures: pictures([stillOf(file)]),
            ...clearingFor(stillOf(file).ground, choices),
          }))
        : [
            {
              name,
              pictures: pictures(taken),
              coverages: taken.map(({ coverage }) => coverage),
              ...clearingFor(ground, choices),
            },
          ],
  };
}

function animation({ path, art }: TakenItem): Proposal {
  if (art.kind !== "animation") throw new Error("Not an animation.");
  const { pictures: taken, plays, broken } = art;
  const total = taken.reduce((sum, { ms }) => sum + ms, 0);
  const first = taken[0] as TakenPicture;
  const name = stem(path).replace(/\.[^.]*$/, "");
  const clip: ArrivedClip = {
    name,
    steps: taken.map(({ ms }, frame) => ({ frame, duration: microsFromMs(ms) })),
    playback: plays === 1 ? "once" : "loop",
    times: plays,
  };
  return {
    id: path,
    name,
    what: `An animation of ${taken.length} pictures, ${first.width} × ${first.height} px, ${written(total)} ms a loop`,
    notes: broken.map(({ index, why }) => `Picture ${index} is broken and left out. ${why}`),
    shows: taken,
    kind: "animation",
    ground: taken.every((each) => each.ground) ? first.ground : null,
    clips: [clip],
    arrivals: (choices) => [
      {
        name,
        pictures: pictures(taken),
        coverages: taken.map(({ coverage }) => coverage),
        ...clearingFor(taken.every((each) => each.ground) ? first.ground : null, choices),
        ...(taken.length === 1 ? { cut: WHOLE } : {}),
        clips: choices.clips ? [clip] : [],
      },
    ],
  };
}

const WHOLE = { by: "count", columns: 1, rows: 1, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: true } as const;

function layers({ path, art }: TakenItem): Proposal {
  if (art.kind !== "layers") throw new Error("Not layered.");
  const { layers: taken, apart, hidden, groups, damaged } = art;
  const name = stem(path).replace(/\.[^.]*$/, "");
  const first = taken[0] as TakenPicture;
  return {
    id: path,
    name,
    what: `${counted(taken.length, "layer")} of ${first.width} × ${first.height} px, each a source: ${shortList(taken.map((each) => each.name))}`,
    notes: [
      ...(hidden > 0 ? [`${counted(hidden, "hidden layer")} left out.`] : []),
      ...damaged.map((each) => `The layer ${each.name} is damaged and left out. ${each.why}`),
    ],
    shows: taken,
    kind: "layers",
    ground: null,
    clips: [],
    ...(apart ? { parting: { whole: `${counted(groups, "group")} as one`, apart: `${apart.length} layers apart` } } : {}),
    arrivals: (choices) =>
      (choices.apart && apart ? apart : taken).map((each) => ({ name: `${name}-${each.name}`, pictures: pictures([each]) })),
  };
}

function describedSheet(item: TakenItem, description: TakenDescription): Proposal {
  const { path, understood } = description;
  const picture = stillOf(item);
  const { told, clips } = framesAndClips(understood, path);
  const { unplaced, reading } = understood;
  const cut = { by: "metadata", file: stem(path), reading } as const;
  return {
    description,
    id: item.path,
    name: stem(item.path),
    what: `A sheet with ${counted(told.length, "frame")}${clips.length > 0 ? ` and ${counted(clips.length, "clip")}` : ""}, as ${stem(path)} says`,
    notes: [...doubtsOf(understood), ...misfits(unplaced)],
    unplaced,
    shows: [picture],
    kind: "described",
    ground: picture.ground,
    clips,
    arrivals: (choices) => [
      {
        name: stem(item.path),
        pictures: pictures([picture]),
        cut,
        told,
        clips: choices.clips ? clips : [],
        ...clearingFor(picture.ground, choices),
      },
    ],
  };
}

function recutSource(description: TakenDescription, { source, name }: { source: SourceId; name: string }): Proposal {
  const { path, understood } = description;
  const { told, clips } = framesAndClips(understood, path);
  return {
    description,
    id: path,
    name,
    what: `Cut into ${counted(told.length, "frame")}, as ${stem(path)} says`,
    notes: [...doubtsOf(understood), ...misfits(understood.unplaced)],
    unplaced: understood.unplaced,
    shows: [],
    kind: "recut",
    ground: null,
    clips,
    arrivals: () => [],
    recut: { source, reading: understood.reading, file: stem(path), frames: told },
  };
}

/** What is not sure about how a file was read, so that nobody takes it for certain. */
function doubtsOf({ grade }: Understood): string[] {
  return grade.grade === "sure"
    ? []
    : [`Not sure: ${grade.reasons.join("; ")}. Look at the frames on the sheet, and correct fields there.`];
}

function misfits(unplaced: readonly Unplaced[]): string[] {
  return unplaced.length > 0
    ? [`${counted(unplaced.length, "record does", "records do")} not fit and ${unplaced.length === 1 ? "is" : "are"} left out.`]
    : [];
}

/** Whether to ask before bringing in: plain sheets go straight to work. */
export function needsReview(proposals: readonly Proposal[]): boolean {
  return proposals.some(({ kind, notes }) => kind !== "sheet" || notes.length > 0);
}

function shortList(items: readonly (string | number)[]): string {
  return items.length > 6 ? `${items.slice(0, 6).join(", ")}, … (${items.length})` : items.join(", ");
}

function written(ms: number): string {
  return String(Math.round(ms * 1000) / 1000);
}
