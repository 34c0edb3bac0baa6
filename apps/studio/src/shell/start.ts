/** Opens a project when the page opens: a new one, the demo or the one in the address, the last one, or the demo in an empty browser. */

import type { ClipName } from "@caravan/core/model";
import { whyOf } from "@caravan/core/model";
import { importBundle, listProjects, openProject, projectForStart, startProject } from "../project/projects";
import { openStorage } from "../project/storage";
import { sweepOld } from "../project/sweep";
import { standAsTab } from "../project/tabs";
import { useView } from "../project/view";
import { inBackground } from "../ui/in-background";
import { STOP_PARTS } from "./stops";

let started: Promise<void> | null = null;

/** Opens the initial project, once, however often it is called. Throws if not even an empty project can be made. */
export function start(): Promise<void> {
  started ??= openFirst();
  return started;
}

async function openFirst(): Promise<void> {
  await openStorage();
  standAsTab();
  inBackground(sweepOld());
  const address = new URLSearchParams(location.search);
  if (address.has("demo")) {
    const untouched = (await listProjects()).find((row) => row.demo);
    if (untouched) await openProject(untouched.id);
    else await openDemo();
    return;
  }
  if (address.has("new")) {
    await startProject();
    return;
  }
  const asked = address.get("project");
  const id = await projectForStart(asked);
  if (id === null) await openDemo();
  else
    await openProject(id).catch((error: unknown) => {
      throw new StartFailed(error, id);
    });
}

/** Why the project with this id did not open. */
export class StartFailed extends Error {
  constructor(
    cause: unknown,
    readonly id: string,
  ) {
    super(whyOf(cause), { cause });
  }
}

/** Opens the original demo as a new project. */
export async function openDemo(): Promise<void> {
  // Where the demo begins: the code comes beside the project, not after it.
  inBackground(STOP_PARTS[useView.getState().stop].Surface.load());
  const answer = await fetch("/demo.caravan");
  if (!answer.ok) {
    await startProject();
    return;
  }
  if (!(await openProject(await importBundle(await answer.blob(), "the demo", { demo: true })))) return;
  // The clip that shows best what a clip is.
  useView.setState({ clipName: "walk-e" as ClipName });
}
