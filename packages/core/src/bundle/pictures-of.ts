import { allPictures, type Picture, type Project } from "../model";

/** Every picture file of a project, in the order of sources. */
export function picturesOf(project: Project): Picture[] {
  return project.sources.flatMap(allPictures);
}
