import { checkedName } from "../model";
import { edit } from "./edit";

/** Throws `bad-name`. */
export const renameProject = edit(
  (_project, name: string) => `rename the project to ${name.trim()}`,
  (project, wanted) => {
    const name = checkedName(wanted, "project name");
    return name === project.name ? project : { ...project, name };
  },
);
