/** Analyses the feet of each stage's walk whenever the project is idle, so that sliding feet are found wherever findings are shown. */
import type { Project } from "@caravan/core/model";
import { type Walk, type WalkingClip, walkingClip, walkKey, walkOf } from "@caravan/core/stage";
import { inBackground } from "../ui/in-background";
import { drawnFrames } from "./drawn-frames";
import { useOpenProject } from "./open-project";
import { useSeenArt } from "./seen-art";

/** How long the project must be idle before walks are analysed: during a drag they would be analysed sixty times a second. */
const REST = 300; // ms
let resting: ReturnType<typeof setTimeout> | undefined;

useOpenProject.subscribe(({ project }, before) => {
  if (project !== before.project) lookOnceAtRest(project);
});
lookOnceAtRest(useOpenProject.getState().project);

function lookOnceAtRest(project: Project): void {
  clearTimeout(resting);
  if (project.stages?.length) resting = setTimeout(() => inBackground(lookAtWalks(project)), REST);
}

/** Analyses the feet of every stage's walk that changed since. Results without a stage are dropped. */
async function lookAtWalks(project: Project): Promise<void> {
  const wanted = new Map<string, WalkingClip>();
  for (const stage of project.stages ?? []) {
    const walking = walkingClip(project, stage);
    if (walking) wanted.set(walkKey(project, walking), walking);
  }
  const { walks } = useSeenArt.getState();
  const unseen = [...wanted].filter(([key]) => !walks.has(key));
  if (unseen.length === 0) return;
  const seen: [string, Walk][] = [];
  for (const [key, walking] of unseen) {
    // Unreadable art is reported where it is shown.
    const drawn = await drawnFrames(walking.placed, project).catch(() => null);
    if (drawn) seen.push([key, walkOf(walking, drawn)]);
  }
  useSeenArt.setState((now) => ({ walks: new Map([...[...now.walks].filter(([key]) => wanted.has(key)), ...seen]) }));
}
