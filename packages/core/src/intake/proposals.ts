/**
 * Proposes what to make of everything in one drop: series by their numbers, pictures with their metadata, animations, layers, sheets.
 * Pure; shared by the studio's review and the command line.
 */
import { facingOfName } from "../facing";
import { type Clip, naturalOrder, type Source, type SourceId, stemOf } from "../model";
import { findSeries, type Series } from "../series";
import { animationProposal } from "./animation";
import { describedProposal, recutProposal } from "./described";
import { fileOf, stillOf, type TakenDescription, type TakenItem } from "./drop-contents";
import { withKnownSource } from "./known-source";
import { layersAsSheets, layersProposal } from "./layered-file";
import { findLayers, type Stackable, withLayers } from "./layers";
import { namesInFolders, withoutEnding } from "./names";
import type { Proposal } from "./proposal";
import { agreedGrids, type SeenGrid, sheetProposal, usualCuts } from "./sheet";
import { seriesProposal } from "./stills";

/** What is known besides the files themselves. */
export interface KnownOfDrop {
  /** Sources that are there: a file that is called like one may be its new art. */
  readonly sources?: readonly Source[];
  /** The clips that are there: an animation may have other times than the clip that was made of it. */
  readonly clips?: readonly Clip[];
  /** The grids that sheets suggest, by path; only of those that were looked at. */
  readonly grids?: ReadonlyMap<string, SeenGrid>;
}

/** Something of a drop, and the proposal for it once it has a name. */
interface Making {
  readonly path: string;
  /** Its name, unless others in the drop are called alike. */
  readonly plain: string;
  readonly stack?: Stackable;
  readonly of?: SourceId | undefined;
  make(name: string): Proposal;
}

/** In the order in which people would look for them: described, series, animations, layers, sheets; by name among each. */
export function proposalsFor(
  items: readonly TakenItem[],
  descriptions: readonly TakenDescription[],
  { sources = [], clips = [], grids = new Map() }: KnownOfDrop = {},
): Proposal[] {
  const described = new Map(descriptions.flatMap((each) => ("picture" in each.of ? [[each.of.picture, each] as const] : [])));
  const stills = items.filter(({ art, path }) => art.kind === "still" && !described.has(path));
  const { series, single } = findSeries(stills, ({ path }) => path);
  const others = items.filter(({ art }) => art.kind !== "still").sort((a, b) => naturalOrder(a.path, b.path));
  const told = items.filter(({ path }) => described.has(path));
  const facing = sheetsByFacing(single);
  const agreed = agreedGrids(facing, grids);
  const cuts = usualCuts(single, new Set(facing.flat()), agreed);
  const makings: Making[] = [
    ...told.map((item) => ({
      ...{ path: item.path, plain: fileOf(item.path), of: item.of },
      stack: { ...stackOf(item), told: described.get(item.path)?.understood.told.layers ?? [] },
      make: (name: string) => describedProposal(item, described.get(item.path) as TakenDescription, name),
    })),
    ...series.map((each) => ({
      ...{ path: (each.members[0] as { file: TakenItem }).file.path, plain: each.name, stack: stackOfSeries(each) },
      make: (name: string) => seriesProposal(each, name),
    })),
    ...others.flatMap((item): Making[] => {
      const { path } = item;
      const plain = withoutEnding(path);
      if (item.art.kind === "animation") return [{ path, plain, make: (name) => animationProposal(item, name) }];
      const sheets = layersAsSheets(item, plain, sources);
      if (sheets.length === 0) return [{ path, plain, make: (name) => layersProposal(item, name) }];
      return sheets.map(({ still, called, notes }) => ({
        ...{ path, plain: called },
        make: (name) => ({ ...sheetProposal(still, name, undefined, "later"), notes }),
      }));
    }),
    ...single.map((item, k) => ({
      ...{ path: item.path, plain: fileOf(item.path), stack: stackOf(item) },
      make: (name: string) => sheetProposal(item, name, agreed.get(item.path), cuts[k] ?? "later"),
    })),
  ];
  const names = namesInFolders(makings);
  const plain = makings.map(({ make }, k) => make(names[k] as string));
  const made = layersFound(plain, makings).map((proposal, k) => proposal && withKnownSource(proposal, sources, clips, makings[k]?.of));
  const recuts = descriptions.flatMap((each) => {
    if (!("source" in each.of)) return [];
    const { source: id } = each.of;
    return [recutProposal(each, each.of, sources.find((source) => source.id === id) ?? null, clips)];
  });
  const isThere = (proposal: Proposal | null) => proposal !== null;
  return [...made.slice(0, told.length).filter(isThere), ...recuts, ...made.slice(told.length).filter(isThere)];
}

/** The proposals, with layers merged into what they belong to; null in the places of those layers. */
function layersFound(plain: readonly Proposal[], makings: readonly { readonly stack?: Stackable }[]): (Proposal | null)[] {
  const places = makings.flatMap(({ stack }, k) => (stack ? [k] : []));
  const { over, unfit, notes } = findLayers(places.map((k) => makings[k]?.stack as Stackable));
  const made: (Proposal | null)[] = [...plain];
  for (const [at, why] of unfit) {
    const k = places[at] as number;
    const proposal = plain[k] as Proposal;
    made[k] = { ...proposal, notes: [...proposal.notes, why] };
  }
  for (const [at, said] of notes) {
    const k = places[at] as number;
    const proposal = made[k] as Proposal;
    made[k] = { ...proposal, notes: [...proposal.notes, ...said] };
  }
  for (const [lowest, found] of over) {
    const k = places[lowest] as number;
    const apart = found.map(({ at }) => plain[places[at] as number] as Proposal);
    made[k] = withLayers(
      made[k] as Proposal,
      found.map(({ layer }) => layer),
      apart,
    );
    for (const { at } of found) made[places[at] as number] = null;
  }
  return made;
}

function stackOf(item: TakenItem): Stackable {
  return { path: stemOf(item.path), numbers: null, pictures: [stillOf(item)] };
}

function stackOfSeries({ name, members }: Series<TakenItem>): Stackable {
  const first = (members[0] as (typeof members)[number]).file.path;
  return {
    path: `${first.slice(0, first.lastIndexOf("/") + 1)}${name}`,
    numbers: members.map(({ number }) => number),
    pictures: members.map(({ file }) => stillOf(file)),
  };
}

/** Sheets that are alone in the drop with a facing in their names: groups of one movement each. */
function sheetsByFacing(sheets: readonly TakenItem[]): TakenItem[][] {
  const groups = new Map<string, { facings: Set<string>; items: TakenItem[] }>();
  for (const item of sheets) {
    const { stem, facing } = facingOfName(withoutEnding(item.path));
    if (facing === null) continue;
    const key = `${item.path.slice(0, item.path.lastIndexOf("/") + 1)}${stem}`;
    const group = groups.get(key) ?? { facings: new Set(), items: [] };
    groups.set(key, group);
    group.facings.add(facing);
    group.items.push(item);
  }
  return [...groups.values()].flatMap(({ facings, items }) => (facings.size > 1 ? [items] : []));
}

/** Whether to ask before bringing in: plain sheets go straight to work. */
export function needsReview(proposals: readonly Proposal[]): boolean {
  return proposals.some(
    ({ kind, notes, usual, known, layering }) =>
      kind !== "sheet" || layering !== undefined || notes.length > 0 || usual.cut !== "later" || known !== undefined,
  );
}

/** The stills of a drop that are sheets, as far as their names show: those worth a search for grids. */
export function sheetsOf(items: readonly TakenItem[], descriptions: readonly TakenDescription[]): TakenItem[] {
  const described = new Set(descriptions.flatMap(({ of }) => ("picture" in of ? [of.picture] : [])));
  const stills = items.filter(({ art, path }) => art.kind === "still" && !described.has(path));
  return findSeries(stills, ({ path }) => path).single;
}
