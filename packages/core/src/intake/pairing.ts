/** Matches a metadata file with the picture it describes among those that came with it. */
import { withoutEnding } from "./names";
import { fileOf } from "./taken";

/**
 * The pictures, by their paths, that a file is to be held against: all that it names, if these are several; else the one that is called like it,
 * in its folder before elsewhere; else the one that it names, or the only one there is. None if nothing tells.
 */
export function describedBy(path: string, text: string, pictures: readonly string[]): string[] {
  const named = pictures.filter((picture) => text.includes(fileOf(picture)));
  if (named.length > 1) return named;
  const stem = (each: string) => each.replace(/\.[^./]*$/, "").toLowerCase();
  const fitting =
    pictures.find((picture) => stem(picture) === stem(path)) ??
    pictures.find((picture) => withoutEnding(picture).toLowerCase() === withoutEnding(path).toLowerCase()) ??
    named[0] ??
    (pictures.length === 1 ? pictures[0] : undefined);
  return fitting === undefined ? [] : [fitting];
}

/** What is said of several pictures, without the records that only belong to another one of them. */
export function withoutOthersRecords<Each extends { readonly unplaced: readonly { readonly why: string }[] }>(
  understood: Each,
  pictures: readonly string[],
): Each {
  const names = pictures.map(fileOf);
  return { ...understood, unplaced: understood.unplaced.filter(({ why }) => !names.some((name) => why === belongsTo(name))) };
}

/** Of what one file says of several pictures, all but those that it tells to lie over another of them. */
export function withoutLayers<Each extends { readonly understood: { readonly told: { readonly place: number | null } } }>(
  found: readonly Each[],
): Each[] {
  const lowest = found.filter(({ understood }) => understood.told.place === null);
  if (lowest.length > 0 || found.length === 0) return lowest;
  return [found.reduce((best, each) => ((each.understood.told.place ?? 0) < (best.understood.told.place ?? 0) ? each : best))];
}

function belongsTo(picture: string): string {
  return `It belongs to the picture ${picture}.`;
}
