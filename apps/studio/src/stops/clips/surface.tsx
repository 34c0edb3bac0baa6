"use client";

import { renameClip } from "@caravan/core/edit";
import { type Clip, type ClipName, unreachable } from "@caravan/core/model";
import dynamic from "next/dynamic";
import { useNaming } from "../../project/naming";
import { edit, useProject } from "../../project/open-project";
import { chooseClip, chosenAction, chosenClip, go, goToMarks, useView, type View } from "../../project/view";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { EmptyPanel } from "../../ui/empty-panel";
import { FIELDS } from "../../ui/fields-by-key";
import { TextField } from "../../ui/text-field";
import { t } from "../../ui/words";
import { ClipKeys } from "./clip-keys";
import { CompareBench } from "./compare/compare-bench";
import { FlickBench } from "./flick/flick-bench";
import { PaceFields } from "./pace-fields";
import { Ribbons } from "./ribbons";
import { ActionSurface } from "./rose/action-surface";
import { RuleFields } from "./rule-fields";

/** Shows the selected clip as a tall ribbon on a time ruler, the other ribbons thin around it, and the tray to add frames from. */
export function Surface() {
  const project = useProject((each) => each);
  const clip = useView((view) => chosenClip(project, view));
  const action = useView((view) => chosenAction(project, view));
  const bench = useView((view) => view.bench);
  if (action) return <ActionSurface action={action} />;
  if (!clip) return <Empty />;
  return (
    <>
      <ClipKeys clip={clip} />
      <header className="flex flex-wrap items-center justify-between gap-x-3 gap-y-2">
        <div className="flex min-w-0 items-baseline gap-2">
          <h2 className="min-w-0 text-title font-bold">
            <ClipNameField key={clip.name} clip={clip} />
          </h2>
          <span className="text-muted">{clip.steps.length === 1 ? t("1 step") : t("{count} steps", { count: clip.steps.length })}</span>
        </div>
        <PaceFields clip={clip} />
      </header>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <Choice label={t("Bench")} value={bench} options={BENCH_WORDS} onChange={(next) => useView.setState({ bench: next })} />
        <Button onClick={() => goToMarks(clip.name)} aria-keyshortcuts="g" hint="G">
          {t("Origin, boxes and points at Marks")}
        </Button>
      </div>
      <Bench bench={bench} clip={clip} />
    </>
  );
}

/** Charts are a large library that most visits do without. */
const RhythmBench = dynamic(() => import("./rhythm/rhythm-bench").then((part) => part.RhythmBench), { ssr: false });

const BENCH_WORDS = [
  ["ribbons", t("Ribbons")],
  ["flick", t("Flick")],
  ["compare", t("Compare")],
  ["rhythm", t("Rhythm")],
] as const;

function Bench({ bench, clip }: { bench: View["bench"]; clip: Clip }) {
  switch (bench) {
    case "ribbons":
      return (
        <>
          <RuleFields clip={clip} />
          <Ribbons clip={clip} />
        </>
      );
    case "flick":
      return <FlickBench key={clip.name} clip={clip} />;
    case "compare":
      return <CompareBench clip={clip} />;
    case "rhythm":
      return <RhythmBench clip={clip} />;
    default:
      return unreachable(bench);
  }
}

/** The clip's name. Right after the clip was made it waits to be typed. */
function ClipNameField({ clip }: { clip: Clip }) {
  useNaming(FIELDS.clipName);
  const rename = (name: string): string | undefined => {
    const error = edit(renameClip, clip.name, name);
    if (!error) chooseClip(name.trim() as ClipName);
    return error?.message;
  };
  return <TextField id={FIELDS.clipName} label={t("Clip name")} value={clip.name} onChange={rename} className="max-w-full font-bold" />;
}

function Empty() {
  return (
    <EmptyPanel title={t("No clips yet")} next={{ label: t("Go to Frames"), run: () => go("frames") }}>
      {t(
        "At Frames, pick the frames of one movement in order, by click or by row, and press C. The clip appears here as a ribbon of time.",
      )}
    </EmptyPanel>
  );
}
