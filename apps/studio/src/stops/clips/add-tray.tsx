"use client";

import { parseRanges } from "@caravan/core/clip";
import { type Clip, type FrameRef, keptRefs, type Source } from "@caravan/core/model";
import { FrameStrip } from "../../preview/frame-strip";
import { useProject } from "../../project/open-project";
import { chooseSource, chosenSource, pickedFrames, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { useCountFrom } from "../../ui/counting";
import { FieldBox } from "../../ui/number-field";
import { TextField } from "../../ui/text-field";
import { addPicked, addRefs } from "./clip-keys";

/** Frames of a sheet, to be dragged into the ribbon or picked and added with Enter. */
export function AddTray({ clip }: { clip: Clip }) {
  const project = useProject((each) => each);
  const sourceId = useView((view) => view.sourceId);
  const picks = useView((view) => view.picked);
  const first = clip.steps[0]?.frame.split("/")[0];
  const source = chosenSource(project, { sourceId: sourceId ?? ((first ?? null) as typeof sourceId) });
  if (!source) return null;
  const count = pickedFrames(project, { picked: picks }).length;
  return (
    <section aria-label="Tray" className="shrink-0 rounded-box border border-line bg-surface px-2.5 pt-2 pb-1">
      <header className="mb-1.5 flex min-h-6 items-center justify-between gap-3">
        <label className="flex items-center gap-2 font-semibold text-muted">
          Frames of
          <select
            className="rounded-box border border-line bg-raised px-1 py-0.5 text-ink"
            value={source.id}
            onChange={(event) => chooseSource(event.target.value)}
          >
            {project.sources.map((each) => (
              <option key={each.id} value={each.id}>
                {each.name}
              </option>
            ))}
          </select>
        </label>
        <RangeField clip={clip} source={source} />
        {count > 0 ? (
          <Button className="min-h-6" onClick={() => addPicked(clip)} hint="Enter">
            Add {count} to {clip.name}
          </Button>
        ) : (
          <span className="text-muted">drag into the ribbon, or pick and press Enter</span>
        )}
      </header>
      <FrameStrip source={source} />
    </section>
  );
}

/** Frames by their numbers in the tray, as many as one likes: `3-9, 12, 9-3`. */
function RangeField({ clip, source }: { clip: Clip; source: Source }) {
  const from = useCountFrom();
  const kept = keptRefs(source);
  if (kept.length === 0) return null;
  const add = (text: string): string | undefined => {
    try {
      const refs = parseRanges(text, from, kept.length - 1 + from).map((number) => kept[number - from] as FrameRef);
      return refs.length === 0 ? "Write numbers such as 0-3, 5." : addRefs(clip, refs);
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  };
  return (
    <FieldBox label="add numbers">
      <TextField label="Frames by number" value="" onChange={add} placeholder={`${from}-${Math.min(3, kept.length - 1) + from}, …`} />
    </FieldBox>
  );
}
