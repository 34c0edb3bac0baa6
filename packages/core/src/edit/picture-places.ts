/** Edits where a project's pictures lie in its folder. */
import { allPictures, type Picture, PicturePath, type Project, type Source, withDistinctPaths } from "../model";
import { t } from "../words";
import { edit } from "./edit";

/**
 * Points pictures to files that a folder already has, matched by hash, so that no second copies are made. Invalid paths are skipped;
 * pictures that would share a path get distinct ones.
 */
export const layPictures = edit(
  (_project, _places: ReadonlyMap<string, string>) => t("keep the art where it is"),
  (project: Project, places) => withFiles(project, ({ sha256 }) => places.get(sha256)),
);

/** Points pictures to files that were renamed, by their former paths. Invalid and shared paths as in `layPictures`. */
export const followFiles = edit(
  (_project, renamed: ReadonlyMap<string, string>) => {
    const [first] = renamed;
    return renamed.size === 1 && first
      ? t("follow {from}, which is {to} now", { from: first[0], to: first[1] })
      : t("follow {count} renamed files", { count: renamed.size });
  },
  (project: Project, renamed) => withFiles(project, ({ file }) => renamed.get(file)),
);

function withFiles(project: Project, fileOf: (picture: Picture) => string | undefined): Project {
  const laid = (picture: Picture): Picture => {
    const file = fileOf(picture);
    return file === undefined || file === picture.file || !PicturePath.safeParse(file).success ? picture : { ...picture, file };
  };
  let changed = false;
  const sources = project.sources.map((source): Source => {
    if (allPictures(source).every((picture) => laid(picture) === picture)) return source;
    changed = true;
    const layers = source.layers?.map((layer) => ({ ...layer, pictures: layer.pictures.map(laid) }));
    return { ...source, pictures: source.pictures.map(laid), ...(layers ? { layers } : {}) };
  });
  return changed ? withDistinctPaths({ ...project, sources }) : project;
}
