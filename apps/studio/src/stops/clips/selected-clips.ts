import type { Clip, Project } from "@caravan/core/model";
import { useMemo } from "react";
import { clipsTogether, useView } from "../../project/view";

/** The clips that are selected together; the same list object until it changes. */
export function useClipsTogether(project: Project): readonly Clip[] {
  const clipNames = useView((view) => view.clipNames);
  const actionName = useView((view) => view.actionName);
  return useMemo(() => clipsTogether(project, { clipNames, actionName }), [project, clipNames, actionName]);
}
