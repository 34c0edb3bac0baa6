/** What happens when the page opens: the project asked for, the last one, or in an empty browser the demo. */

import { useOpenProject } from "../project/open-project";
import { importBundle, openProject, projectForStart, startProject } from "../project/projects";
import type { StoredPlace } from "../project/storage";
import { sweepOld } from "../project/sweep";
import { START, STOPS, type Stop, useView } from "../project/view";

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
  else showPlace(await openProject(id));
}

/** Opens the demo as it was delivered, as a new project. */
export async function openDemo(): Promise<void> {
  const answer = await fetch("/demo.caravan");
  if (!answer.ok) {
    await startProject();
    return;
  }
  await openProject(await importBundle(await answer.blob(), "the demo", { demo: true }));
  const walk = useOpenProject.getState().project.clips.find((clip) => clip.name === "walk-e");
  showPlace({ stop: "frames", source: null, clip: walk?.name ?? null });
}

function showPlace(place: StoredPlace | null): void {
  const stop = STOPS.find((each) => each === place?.stop) ?? ("sources" as Stop);
  useView.setState({ ...START, stop, sourceId: (place?.source ?? null) as never, clipName: (place?.clip ?? null) as never });
}
