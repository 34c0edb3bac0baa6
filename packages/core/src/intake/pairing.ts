/** Matches a metadata file with the picture it describes among those that came with it. */

import { pictureStem, type Unplaced } from "../metadata";
import { artStem, pathKey, type Source } from "../model";
import { fileOf } from "./drop-contents";
import { mentionsIn } from "./mentions";
import { withoutEnding } from "./names";

/**
 * The pictures, by path, that a file is matched to: all that it names, if there are several; otherwise the one with its name, in its own
 * folder first; otherwise the one that it names, or the only one. None if nothing decides.
 */
export function describedBy(path: string, text: string, pictures: readonly string[]): string[] {
  const mentions = mentionsIn(text);
  const named = pictures.filter((picture) => mentions(fileOf(picture)));
  if (named.length > 1) return named;
  const stem = (each: string) => pathKey(each.replace(/\.[^./]*$/, ""));
  const fitting =
    pictures.find((picture) => stem(picture) === stem(path)) ??
    pictures.find((picture) => pathKey(withoutEnding(picture)) === pathKey(withoutEnding(path))) ??
    named[0] ??
    (pictures.length === 1 ? pictures[0] : undefined);
  return fitting === undefined ? [] : [fitting];
}

/**
 * The sources that a file is about which comes without pictures. Those that it cut before, of several the ones whose pictures it names, or
 * that are called after its folder, too; otherwise one: called like it, named in it, or else the one that is `chosen`. None if nothing decides.
 */
export function sourcesDescribedBy(path: string, text: string, sources: readonly Source[], chosen: Source | null): readonly Source[] {
  const file = pathKey(fileOf(path));
  const stem = pathKey(withoutEnding(path));
  const mentions = mentionsIn(text);
  const called = (source: Source) => [pathKey(source.name), pathKey(fileOf(artStem(source)))];
  const isNamed = ({ name, pictures }: Source) => mentions(`${name}.png`) || pictures.some((each) => mentions(fileOf(each.file)));
  const named = sources.filter(isNamed);
  const cut = sources.filter((each) => each.cut?.by === "metadata" && pathKey(each.cut.file) === file);
  if (cut.length > 0) {
    const both = cut.filter((each) => named.includes(each));
    if (both.length > 0 || named[0]) return both.length > 0 ? both : [named[0] as Source];
    const folder = pathKey(path.split("/").at(-2) ?? "");
    const inFolder = cut.filter((each) => called(each).includes(`${folder}-${stem}`));
    return inFolder.length > 0 ? inFolder : chosen && cut.includes(chosen) ? [chosen] : cut;
  }
  const one =
    sources.find((each) => called(each)[0] === stem) ??
    sources.find((each) => called(each)[1] === stem) ??
    sources.find((each) => mentions(`${each.name}.`)) ??
    chosen;
  return one ? [one] : [];
}

/** What a file calls the picture of a source: by the name of the source, which may have been renamed, or by that of its art. */
export function pictureCalled({ name, pictures }: Pick<Source, "name" | "pictures">, text: string): string {
  const art = fileOf(pictures[0]?.file ?? "");
  const mentions = mentionsIn(text);
  return !mentions(`${name}.`) && art !== "" && mentions(`${withoutEnding(art)}.`) ? art : `${name}.png`;
}

/** The descriptions of several pictures, without records that only belong to another of them. */
export function withoutOthersRecords<Each extends { readonly unplaced: readonly Pick<Unplaced, "on">[] }>(
  understood: Each,
  pictures: readonly string[],
): Each {
  const names = new Set(pictures.map(pictureStem));
  return { ...understood, unplaced: understood.unplaced.filter(({ on }) => on === undefined || !names.has(pictureStem(on))) };
}

/** One file's descriptions of several pictures, except those that it lists as layers of another. */
export function withoutLayers<Each extends { readonly understood: { readonly told: { readonly place: number | null } } }>(
  found: readonly Each[],
): Each[] {
  const lowest = found.filter(({ understood }) => understood.told.place === null);
  if (lowest.length > 0 || found.length === 0) return lowest;
  return [found.reduce((best, each) => ((each.understood.told.place ?? 0) < (best.understood.told.place ?? 0) ? each : best))];
}
