/** Matches the files of a folder with the pictures of sources. Pure, and tested. */
import { namesInFolders, withoutEnding } from "@caravan/core/intake";
import {
  allPictures,
  artStem,
  groupedBy,
  isNumberedByFiles,
  type Picture,
  pathKey,
  pathStem,
  type Source,
  type SourceId,
  stemOf,
} from "@caravan/core/model";
import { findSeries, numberIn, type Series } from "@caravan/core/series";

/** The files of a source's art: of each of its pictures and its layers' pictures, null for missing ones; or one that all come from. */
export type Match = { readonly from: "each"; readonly paths: readonly (string | null)[] } | { readonly from: "one"; readonly path: string };

/** For every source with a matching file. */
export type Matches = ReadonlyMap<SourceId, Match>;

/** What files of a folder are to a project's sources. */
export interface Matching {
  readonly matches: Matches;
  /** The files that fit a source equally well, of which none is used. */
  readonly unclear: ReadonlyMap<SourceId, readonly string[]>;
}

/** Paths that are known to have a source's art where others fit as well, by what its art is called (`artStem`); none if no file has it. */
export type Chosen = Readonly<Record<string, readonly string[]>>;

/**
 * Matches by file name: pictures that are called as in the project; those that would be, if all of the folder was imported (`walk_3.png` for
 * the third still of the series `walk`, `hero/walk.png` for `hero-walk.png`); or else one file from which all pictures of a source come
 * (`porter.ora`, `spark.gif`). Where several files fit, the folder path decides, or what was `chosen`, and if that does not either, none is
 * used: a wrong picture would be worse than none. `folder` is what the folder is called. Cost: O(pictures + paths), and for series the paths
 * once each.
 */
export function matchFiles(sources: readonly Source[], paths: readonly string[], folder = "", chosen: Chosen = {}): Matching {
  const byPath = new Map(paths.map((path) => [pathKey(path), path]));
  const byName = groupedBy(paths, lastPart);
  const imported = importedAs(sources, paths, folder);
  const matches = new Map<SourceId, Match>();
  const unclear = new Map<SourceId, string[]>();
  for (const source of sources) {
    const stem = artStem(source);
    const known = Object.hasOwn(chosen, stem) ? chosen[stem] : undefined;
    const alike = new Set<string>();
    /** Of files that fit equally well the one that is known to be it. */
    const sure = (candidates: readonly string[] = []): string | null => {
      const path = onlyOf(candidates) ?? onlyOf(candidates.filter((each) => known?.includes(each)));
      if (path === null) for (const each of candidates) alike.add(each);
      return path;
    };
    const called = lastPart(stem);
    const numbered = isNumberedByFiles(source) ? numberedFiles(called, imported) : () => null;
    const fileOf = ({ file, number }: Picture): string | null =>
      byPath.get(pathKey(file)) ??
      (number === undefined ? null : numbered(number)) ??
      sure(bestOf(file, byName.get(lastPart(file)) ?? [])) ??
      (isBareNumber(file) ? null : sure(imported.singles.get(stemOf(lastPart(file)))?.filter(isPng)));
    const each = allPictures(source).map(fileOf);
    const one = sure(filesOfAll(source, imported.singles.get(called) ?? []));
    // Beside a layered file there may be what was exported from it, all layers in one.
    const isLayered = one !== null && /\.ora$/i.test(one) && source.layers !== undefined && each.includes(null);
    if (one !== null && (isLayered || each.every((path) => path === null))) matches.set(source.id, { from: "one", path: one });
    else if (each.some((path) => path !== null)) matches.set(source.id, { from: "each", paths: each });
    const isWhole = matches.get(source.id)?.from === "one" || !each.includes(null);
    if (!isWhole && alike.size > 0 && known?.length !== 0) unclear.set(source.id, [...alike]);
  }
  return { matches, unclear };
}

/** The files among those called like the source from which all of its pictures may come. A PNG can be an animation, too. */
function filesOfAll({ pictures }: Source, alike: readonly string[]): readonly string[] {
  const others = alike.filter((path) => !isPng(path));
  return others.length > 0 || pictures.length === 1 ? others : alike;
}

/**
 * Files in which the art of sources was only drawn, as it seems: `porter.ora` where the source has `porter.png`, or where there are sources for
 * each layer of it, such as `porter-coat`.
 */
export function drawnBeside(sources: readonly Source[], paths: readonly string[], folder = ""): Set<string> {
  const called = sources.map((source) => lastPart(artStem(source)));
  const isDrawn = (stem: string) => called.includes(stem) || called.some((name) => name.startsWith(`${stem}-`));
  return new Set(
    [...importedAs(sources, paths, folder).singles].flatMap(([stem, alike]) => {
      const others = alike.filter((path) => !isPng(path));
      if (others.length === 0 || !isDrawn(stem)) return [];
      return called.includes(stem) ? others : others.filter((path) => /\.ora$/i.test(path));
    }),
  );
}

/** What the files of a folder are called if all of it is imported, in small letters and without endings. */
interface Imported {
  readonly singles: ReadonlyMap<string, readonly string[]>;
  /** By the series' name and the still's number. */
  readonly series: ReadonlyMap<string, ReadonlyMap<number, string>>;
}

function importedAs(sources: readonly Source[], paths: readonly string[], folder: string): Imported {
  const within = (path: string) => (folder === "" ? path : `${folder}/${path}`);
  const [several, stills] = [paths.filter((path) => HOLDS_SEVERAL.test(path)), paths.filter((path) => !HOLDS_SEVERAL.test(path))];
  const found = findSeries(stills, within);
  const { series, apart } = seriesOfSources(sources, found.series);
  const single = [...found.single, ...apart, ...several];
  const things = [
    ...series.map(({ name, members }) => ({ path: within(members[0]?.file ?? ""), plain: name })),
    ...single.map((path) => ({ path: within(path), plain: path.slice(path.lastIndexOf("/") + 1) })),
  ];
  const names = namesInFolders(things);
  const numbered = series.map(({ members }, k) => {
    const name = pathKey(pathStem(names[k] as string));
    return [name, new Map(members.map(({ file, number }) => [number, file]))] as const;
  });
  // Of two series of one name the one that is stored as it is: the later one counts.
  numbered.sort(([, a], [, b]) => Number([...a.values()].every(isPng)) - Number([...b.values()].every(isPng)));
  const called = new Map(single.map((path, k) => [path, pathKey(pathStem(withoutEnding(names[series.length + k] as string)))]));
  return { series: new Map(numbered), singles: groupedBy(single, (path) => called.get(path) as string) };
}

/** Without those whose files are sources of their own, although numbered: two sheets, or two animations in files of a kind that stills have, too. */
function seriesOfSources(sources: readonly Source[], found: readonly Series<string>[]): { series: Series<string>[]; apart: string[] } {
  const called = new Set(sources.map((source) => lastPart(artStem(source))));
  const isApart = ({ name, members }: Series<string>) =>
    !called.has(pathKey(name)) && members.some(({ file }) => called.has(stemOf(lastPart(file))));
  return {
    series: found.filter((each) => !isApart(each)),
    apart: found.filter(isApart).flatMap(({ members, doubles }) => [...members.map(({ file }) => file), ...doubles]),
  };
}

/** Files that are no stills of a series, whatever numbers are in their names. */
const HOLDS_SEVERAL = /\.(gif|apng|ora)$/i;

/** Finds the stills of a series by their numbers, also one that is alone there. */
function numberedFiles(name: string, { series, singles }: Imported): (number: number) => string | null {
  const alone = [...singles].filter(([stem]) => stem.startsWith(name)).flatMap(([, paths]) => paths);
  const byNumber = groupedBy(alone, (path) => numberIn(name, lastPart(path)));
  return (number) => series.get(name)?.get(number) ?? onlyOf(byNumber.get(number));
}

function onlyOf(paths: readonly string[] | undefined): string | null {
  return paths?.length === 1 ? (paths[0] as string) : null;
}

/**
 * The file, among `texts`, whose frames and clips a source has: that of its name, of several the one beside its art. None if it is not cut by
 * one, or nothing decides. `art` are the files of its pictures there.
 */
export function metadataOf({ cut }: Source, texts: readonly string[], art: readonly string[]): string | null {
  if (cut?.by !== "metadata") return null;
  const file = pathKey(cut.file);
  const alike = texts.filter((path) => lastPart(path) === file);
  const beside = alike.filter((path) => art.some((each) => folderOf(each) === folderOf(path)));
  return onlyOf(beside) ?? onlyOf(alike);
}

/** The paths of a match. */
export function pathsOf(match: Match): string[] {
  return match.from === "one" ? [match.path] : match.paths.filter((path) => path !== null);
}

function folderOf(path: string): string {
  return path.slice(0, path.lastIndexOf("/") + 1);
}

export function isPng(path: string): boolean {
  return /\.png$/i.test(path);
}

/** Of files with a picture's name those whose folders fit best. */
function bestOf(file: string, candidates: readonly string[]): string[] {
  const alike = candidates.map((path) => ({ path, parts: commonTail(file, path) }));
  const most = Math.max(...alike.map(({ parts }) => parts));
  const best = alike.flatMap(({ path, parts }) => (parts === most ? [path] : []));
  return most === 1 && isBareNumber(file) ? best.filter((path) => !path.includes("/")) : best;
}

/** A name that says nothing without the folder that it counts in. */
function isBareNumber(file: string): boolean {
  return /^\d+\./.test(lastPart(file));
}

/** How many parts two paths share, counted from the end. */
function commonTail(a: string, b: string): number {
  const [own, other] = [a, b].map((path) => pathKey(path).split("/").reverse()) as [string[], string[]];
  let count = 0;
  while (count < own.length && own[count] === other[count]) count++;
  return count;
}

function lastPart(path: string): string {
  return pathKey(path.slice(path.lastIndexOf("/") + 1));
}
