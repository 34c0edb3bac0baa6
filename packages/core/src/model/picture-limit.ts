import { t } from "../words";
import { CaravanError } from "./error";
import type { Project } from "./project";
import { allPictures } from "./source";

/** More pictures than this no project file holds. */
export const MOST_PICTURES = 20_000;

/** Throws `too-many-pictures` if `more` of them do not fit into the project. */
export function refuseTooMany({ sources, name }: Project, more: number): void {
  const count = sources.reduce((sum, source) => sum + allPictures(source).length, 0);
  if (count + more > MOST_PICTURES)
    throw new CaravanError(
      "too-many-pictures",
      t('project "{name}"', { name }),
      t("It has {count} pictures; {more} more would exceed the limit of {mostPictures}.", { count, more, mostPictures: MOST_PICTURES }),
      t("Put them on sheets, or start a second project."),
    );
}
