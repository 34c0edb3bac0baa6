import { checkedName } from "../model";
import { t } from "../words";
import { edit } from "./edit";

/** Throws `bad-name`. */
export const renameProject = edit(
  (_project, name: string) => t("rename the project to {name}", { name: name.trim() }),
  (project, wanted) => {
    const name = checkedName(wanted, t("project name"));
    return name === project.name ? project : { ...project, name };
  },
);
