"use client";

import { withTracedOutlines } from "@caravan/core/marks";
import { useEffect, useMemo } from "react";
import { useOpenProject, useProject } from "../../project/open-project";
import { useSeenArt } from "../../project/seen-art";
import { chosenStage, useView } from "../../project/view";
import { t } from "../../ui/words";
import { AccountPanel } from "./account-panel";
import { DriveBar } from "./drive-bar";
import { DriveKeys } from "./drive-keys";
import { Proposing, useAnother } from "./propose";
import { toScene } from "./recording";
import { pass, useSession } from "./session";
import { StageView } from "./stage-view";

/** The stage, driven by keys; below it the account of what showed and why. */
export function Surface() {
  const project = useProject((each) => each);
  const outlines = useSeenArt((seen) => seen.outlines);
  // What collides on the stage are outlines as they are traced now.
  const marked = useMemo(() => withTracedOutlines(project, outlines), [project, outlines]);
  const stage = useView((view) => chosenStage(project, view));
  const another = useAnother();
  const id = useOpenProject((open) => open.id);
  useEffect(() => toScene(id, marked, stage), [id, marked, stage]);
  useRunning();
  const known = useSession((session) => session.setting?.stage === stage);
  if (!stage || another) return <Proposing first={!stage} />;
  const gone = !project.behaviours?.some(({ name }) => name === stage.behaviour);
  return (
    <>
      <DriveKeys stage={stage} />
      <DriveBar stage={stage} />
      {gone && (
        <p role="alert" className="rounded-box border border-l-4 border-line border-l-brick bg-raised p-2">
          {t(
            "The behaviour {behaviour} is not in the project any more. Undo brings it back; or choose another one for this stage, under Stage.",
            { behaviour: stage.behaviour },
          )}
        </p>
      )}
      {known && <StageView stage={stage} />}
      <AccountPanel />
    </>
  );
}

/** Lets time pass at every refresh of the display while it runs. */
function useRunning(): void {
  const running = useSession((session) => session.running && session.stay === null);
  useEffect(() => {
    if (!running) return;
    let last: number | null = null;
    let request = 0;
    const tick = (now: number) => {
      if (last !== null) pass(Math.max(0, now - last) * 1000);
      last = now;
      request = requestAnimationFrame(tick);
    };
    request = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(request);
  }, [running]);
}
