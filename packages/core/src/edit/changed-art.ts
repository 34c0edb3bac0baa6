/** Replaces the pictures of a source, and of its layers, under the same file paths. */
import {
  CaravanError,
  counted,
  freePath,
  isNumberedByFiles,
  type Layer,
  type Picture,
  type Project,
  pathKey,
  type Source,
  sheetOf,
  takenPaths,
} from "../model";
import { t } from "../words";

/** A picture that has been stored, by its hash. */
export type StoredPicture = Omit<Picture, "file">;

/** New art of one of a source's pictures, with new art of layers over it; layers that are not among them stay as they are. */
export interface ChangedPicture extends StoredPicture {
  readonly layers?: readonly (Pick<Layer, "name"> & StoredPicture)[] | undefined;
}

export type NewArt = Pick<Source, "pictures" | "layers">;

/**
 * New art of only some stills of a series, with all others as they are, in the order of their numbers: an artist redraws two stills and drops
 * just those. Null if the source is no numbered series, a picture has no number, or nothing would stay.
 */
export function withOtherStills({ pictures, layers = [] }: Source, changed: readonly ChangedPicture[]): ChangedPicture[] | null {
  if (!isNumberedByFiles({ pictures }) || pictures.length < 2) return null;
  const numbers = new Set(changed.map(({ number }) => number));
  if (numbers.has(undefined) || numbers.size < changed.length) return null;
  const stay = pictures.flatMap(({ file: _file, ...picture }, k): ChangedPicture[] => {
    if (picture.number === undefined || numbers.has(picture.number)) return [];
    const over = layers.flatMap(({ name, pictures: own }) => {
      const on = own[k];
      return on ? [{ name, sha256: on.sha256, width: on.width, height: on.height }] : [];
    });
    return [{ ...picture, ...(over.length > 0 ? { layers: over } : {}) }];
  });
  if (stay.length === 0) return null;
  return [...stay, ...changed].sort((a, b) => (a.number ?? 0) - (b.number ?? 0));
}

/** Whether it equals the source's current art. */
export function isSameArt({ pictures, layers = [] }: NewArt, changed: readonly ChangedPicture[]): boolean {
  return (
    changed.length === pictures.length &&
    changed.every(
      ({ sha256, layers: over = [] }, k) =>
        sha256 === pictures[k]?.sha256 &&
        layers.every(({ name, pictures: own }) => (over.find((each) => each.name === name) ?? own[k])?.sha256 === own[k]?.sha256),
    )
  );
}

/** The source's pictures and layers with changed art in their places. Throws `picture-mismatch` where a layer does not fit over its new picture. */
export function withChangedArt(project: Project, source: Source, changed: readonly ChangedPicture[]): NewArt {
  const pictures = withFiles(project, source, changed);
  if (!source.layers) return { pictures };
  const taken = new Set(pictures.map(({ file }) => pathKey(file)));
  const layers = source.layers.map((layer): Layer => {
    const own = pictures.map((below, k): StoredPicture => {
      const given = changed[k]?.layers?.find(({ name }) => name === layer.name) ?? layer.pictures[k];
      if (given && given.width === below.width && given.height === below.height) return given;
      throw new CaravanError(
        "picture-mismatch",
        source.name,
        given
          ? t('Its layer "{name}" is {width} × {height} px, and the new art below it {belowW} × {belowH} px.', {
              name: layer.name,
              width: given.width,
              height: given.height,
              belowW: below.width,
              belowH: below.height,
            })
          : t('Its layer "{name}" has {pictures}, and the new art {below}.', {
              name: layer.name,
              pictures: counted(layer.pictures.length, "picture"),
              below: pictures.length,
            }),
        t("Give new art of the layer together with it, or remove the layer first."),
      );
    });
    const files = withFiles(project, layer, own, taken);
    for (const { file } of files) taken.add(pathKey(file));
    return { ...layer, pictures: files };
  });
  return { pictures, layers };
}

/** The source with new art, still with its earlier frames. Throws like `withChangedArt`. */
export function sourceWithArt(project: Project, source: Source, changed: readonly ChangedPicture[]): Source {
  return { ...source, ...withChangedArt(project, source, changed) };
}

/** The file paths for a new layer's pictures: beside those below, `art/camp_light.png`. */
export function layerFiles(project: Project, { pictures }: Pick<Source, "pictures">, layer: string): string[] {
  const { files, folders } = takenPaths(project.sources);
  const taken = new Set([...files, ...folders]);
  return pictures.map(({ file }) => {
    const free = freePath(file.replace(/(\.[^./]*)?$/, `_${layer}.png`), (path) => !taken.has(pathKey(path)));
    taken.add(pathKey(free));
    return free;
  });
}

/**
 * Pictures keep the source's files and numbers by position, and an animation's times unless there are others; further ones are named after
 * the first. A series with known file numbers is matched by those.
 */
function withFiles(
  project: Project,
  { pictures }: Pick<Source, "pictures">,
  changed: readonly StoredPicture[],
  besides: ReadonlySet<string> = new Set(),
): Picture[] {
  const { files, folders } = takenPaths(project.sources);
  const taken = new Set([...files, ...folders, ...besides]);
  const numbered = isNumberedByFiles({ pictures });
  return changed.map(({ sha256, width, height, ...own }, k): Picture => {
    const number = own.number ?? pictures[k]?.number;
    const wanted = pictures[k]?.file ?? sheetOf({ pictures }).file.replace(/(-\d+)?(\.[^.]+)$/, `-${k}$2`);
    const file = pictures[k] ? wanted : freePath(wanted, (path) => !taken.has(pathKey(path)));
    taken.add(pathKey(file));
    // Stills drawn anew for an animation's: the file's times are still what it said.
    const duration = own.duration ?? (changed.length === pictures.length ? pictures[k]?.duration : undefined);
    return {
      ...{ file, sha256, width, height },
      ...(numbered && number !== undefined ? { number } : {}),
      ...(duration === undefined ? {} : { duration }),
    };
  });
}
