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
  (project: Project, places) => {
    const laid = (picture: Picture): Picture => {
      const file = places.get(picture.sha256);
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
  },
);
