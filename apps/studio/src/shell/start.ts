/** What happens when the page opens: the project asked for, the last one, or in an empty browser the demo. */

import type { ClipName } from "@caravan/core/model";
import { importBundle, openProject, projectForStart, startProject } from "../project/projects";
import { sweepOld } from "../project/sweep";
import { useView } from "../project/view";

let started: Promise<void> | null = null;

/** Opens what is to be opened, once, however often it is called. Throws if not even an empty project can be made. */
export function start(): Promise<void> {
  started ??= openFirst();
  return started;
}

async function openFirst(): Promise<void> {
  void sweepOld();
  const asked = new URLSearchParams(location.search).get("project");
  const id = await projectForStart(asked);
  if (id === null) await openDemo();
  else await openProject(id);
}

/** Opens the demo as it was delivered, as a new project. */
export async function openDemo(): Promise<void> {
  const answer = await fetch("/demo.caravan");
  if (!answer.ok) {
    await startProject();
    return;
  }
  await openProject(await importBundle(await answer.blob(), "the demo", { demo: true }));
  // The clip that shows best what a clip is.
  useView.setState({ clipName: "walk-e" as ClipName });
}
