/** Edits where a project's pictures lie in its folder. */
import { allPictures, type Picture, PicturePath, type Project, type Source, withDistinctPaths } from "../model";
import { edit } from "./edit";

/**
 * Lets pictures lie where a folder has them already, by their hashes, so that no second copy is made beside. Paths that a document cannot have are
 * passed over; pictures that would come to one path are told apart.
 */
export const layPictures = edit(
  (_project, _places: ReadonlyMap<string, string>) => "leave the art where it lies",
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
