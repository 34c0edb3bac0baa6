import type { Project } from "../model";
import type { Finding } from "./finding";

/** Whether a finding can be mended by an edit alone. */
export function isMendable({ mend }: Finding): boolean {
  return mend !== undefined && "apply" in mend;
}

/** The project with the finding mended, or unchanged if no edit mends it. Throws what the edit throws. */
export function mended(project: Project, { mend }: Finding): Project {
  return mend && "apply" in mend ? mend.apply(project) : project;
}
