"use client";

import { joinClips, partByRows, rowsOfClip } from "@caravan/core/edit";
import type { Clip, ClipName } from "@caravan/core/model";
import { useMemo } from "react";
import { useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { act } from "./act";

/** A clip as a whole: parted by the rows of its sheet, or joined with another one. */
export function ClipTools({ clip }: { clip: Clip }) {
  const project = useProject((each) => each);
  const rows = useMemo(() => rowsOfClip(project, clip).length, [project, clip]);
  const others = project.clips.filter((each) => each.name !== clip.name);
  if (rows < 2 && others.length === 0) return null;
  return (
    <Detail title="The whole clip">
      <div className="flex flex-wrap items-center gap-2">
        {rows > 1 && <Button onClick={() => act(partByRows, clip.name)}>Part by its {rows} rows</Button>}
        {others.length > 0 && (
          <label className="flex items-center gap-1.5 text-muted">
            Put after it
            <select
              aria-label="Clip to put after it"
              className="min-h-8 max-w-40 rounded-box border border-line bg-raised px-1 text-ink"
              value=""
              onChange={(event) => event.target.value !== "" && act(joinClips, clip.name, [event.target.value as ClipName])}
            >
              <option value="">another clip …</option>
              {others.map(({ name }) => (
                <option key={name} value={name}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
    </Detail>
  );
}
