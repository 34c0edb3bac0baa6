"use client";

import { parseRanges } from "@caravan/core/clip";
import { addClip, nameForClip } from "@caravan/core/edit";
import { type Clip, type FrameRef, keptRefs, type Source, whyOf } from "@caravan/core/model";
import { FrameStrip } from "../../preview/frame-strip";
import { currentProject, edit, useProject } from "../../project/open-project";
import { chooseClip, chooseSource, chosenSource, pickedFrames, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { useCountFrom } from "../../ui/counting";
import { FieldBox } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { TextField } from "../../ui/text-field";
import { addPicked, addRefs } from "./clip-keys";
import { ADD_NUMBERS, NEW_BY_NUMBERS } from "./numbers";

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
        <span className="flex items-center gap-2 font-semibold text-muted">
          Frames of
          <Select
            label="Frames of"
            value={source.id}
            options={project.sources.map((each) => [each.id, each.name] as const)}
            onChange={chooseSource}
          />
        </span>
        <RangeFields clip={clip} source={source} />
        {count > 0 ? (
          <Button className="min-h-6" onClick={() => addPicked(clip)} hint="Enter">
            Add {count} to {clip.name}
          </Button>
        ) : (
          <span className="truncate text-muted">drag, or pick and Enter</span>
        )}
      </header>
      <FrameStrip source={source} />
    </section>
  );
}

/** Frames by their numbers in the tray, as many as one likes: `3-9, 12, 9-3`; into this clip, or as a clip of their own. */
function RangeFields({ clip, source }: { clip: Clip; source: Source }) {
  const from = useCountFrom();
  const kept = keptRefs(source);
  if (kept.length === 0) return null;
  const some = `${from}-${Math.min(3, kept.length - 1) + from}, …`;
  const take = (use: (refs: FrameRef[]) => string | undefined) => (text: string) => {
    try {
      const refs = parseRanges(text, from, kept.length - 1 + from).map((number) => kept[number - from] as FrameRef);
      return refs.length === 0 ? "Write numbers such as 0-3, 5." : use(refs);
    } catch (error) {
      return whyOf(error);
    }
  };
  return (
    <>
      <FieldBox label="add numbers">
        <TextField label={ADD_NUMBERS} value="" onChange={take((refs) => addRefs(clip, refs))} placeholder={some} />
      </FieldBox>
      <FieldBox label="new clip of">
        <TextField label={NEW_BY_NUMBERS} value="" onChange={take(newClip)} placeholder={some} />
      </FieldBox>
    </>
  );
}

/** Makes a clip and lets its name be typed. */
function newClip(refs: readonly FrameRef[]): string | undefined {
  const name = nameForClip(currentProject(), refs);
  const error = edit(addClip, refs);
  if (error) return error.message;
  chooseClip(name);
  useView.setState({ naming: true, bench: "ribbons" });
  return undefined;
}
