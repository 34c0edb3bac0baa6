"use client";

import { facingsInRows, joinClips, partByRows, rowsAsFacings, rowsOfClip } from "@caravan/core/edit";
import type { Clip, ClipName } from "@caravan/core/model";
import { useDeferredValue, useMemo } from "react";
import { act } from "../../project/act";
import { currentProject, useProject } from "../../project/open-project";
import { chooseAction } from "../../project/view";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { Select } from "../../ui/select";
import { t } from "../../ui/words";
import { splitAt } from "./step-acts";

/** Turns the rows of a clip into the facings of an action, and shows the action. */
function toAction(name: ClipName): void {
  const { length } = currentProject().actions;
  if (!act(rowsAsFacings, name, { first: "s", clockwise: true })) return;
  const made = currentProject().actions[length];
  if (made) chooseAction(made.name);
}

/** Acts on the whole clip: split by the rows of its sheet, or joined with another. */
export function ClipTools({ clip }: { clip: Clip }) {
  // Rows are counted after what was done is shown: there may be thousands of steps.
  const project = useDeferredValue(useProject((each) => each));
  const settled = useDeferredValue(clip);
  const parts = useMemo(() => rowsOfClip(project, settled), [project, settled]);
  const rows = parts.length;
  const facings = facingsInRows(parts);
  const others = project.clips.filter((each) => each.name !== clip.name);
  if (clip.steps.length < 2 && others.length === 0) return null;
  return (
    <Detail title={t("The whole clip")}>
      <div className="flex flex-wrap items-center gap-2">
        {clip.steps.length > 1 && (
          <Button onClick={() => splitAt(clip, [])} hint="S">
            {t("Split at the playhead")}
          </Button>
        )}
        {rows > 1 && <Button onClick={() => act(partByRows, clip.name)}>{t("Split by its {rows} rows", { rows })}</Button>}
        {facings !== null && (
          <Button title={t("The first row faces you, the others follow clockwise")} onClick={() => toAction(clip.name)}>
            {t("Its rows are {facings} facings", { facings })}
          </Button>
        )}
        {others.length > 0 && (
          <span className="flex items-center gap-1.5 text-muted">
            {t("Append")}
            <Select
              label={t("Clip to append")}
              className="max-w-40"
              value={null}
              placeholder={t("another clip …")}
              options={others.map(({ name }) => [name, name] as const)}
              onChange={(name) => act(joinClips, clip.name, [name])}
            />
          </span>
        )}
      </div>
    </Detail>
  );
}
