/** Adds the chosen parts of a drop to the project: new sources with clips and actions, metadata for sources, new art for sources. */

import { looksOf } from "@caravan/core/art";
import {
  type ArrivedAction,
  type ArrivedClips,
  type ChangedPicture,
  cutByMetadata,
  noArrivedClips,
  refreshByMetadata,
  sourceToBe,
  takeIn,
  withArrivedActions,
} from "@caravan/core/edit";
import { type Choices, cutByFile, fileOf, type Proposal, type Recut, type TakenDescription } from "@caravan/core/intake";
import { counted, type Project, type Source, type SourceId } from "@caravan/core/model";
import { inBackground } from "../../ui/in-background";
import { say, sayTrouble, sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";
import { begin } from "../begun";
import { withLayersOf } from "../changed-art/layered";
import { reviewNewArt } from "../changed-art/review";
import { followClips } from "../follow-clips";
import { keepMetadataText, supposedlyTold, toldBefore, toldIn } from "../metadata-texts";
import { currentProject, useOpenProject } from "../open-project";
import { pictureOfLook } from "../pictures";
import { openProject, startProject } from "../projects";
import { chooseAction, chooseSource, go } from "../view";
import { offerAgain, takeWaiting } from "./review";

/** Imports the chosen things as one undo entry, and opens the stop where work on them begins. New art of sources is then reviewed. */
export async function bringingIn(
  proposals: readonly Proposal[],
  choicesOf: (proposal: Proposal) => Choices,
  actions: readonly ArrivedAction[],
): Promise<void> {
  const chosen = proposals.filter((proposal) => choicesOf(proposal).include);
  const before = new Set(useOpenProject.getState().demo ? [] : currentProject().actions.map(({ name }) => name));
  const newArt = chosen.filter((proposal) => proposal.known && choicesOf(proposal).replaces);
  const added = await addSources(
    chosen.filter((proposal) => !newArt.includes(proposal)),
    choicesOf,
    actions,
  );
  const first = newArt[0]?.known?.source ?? added[0];
  if (newArt.length > 0) inBackground(takeNewArt(newArt, choicesOf).catch(sayTrouble));
  if (first === undefined) return;
  const made = currentProject().actions.find(({ name }) => !before.has(name));
  if (made) {
    say({
      tone: "good",
      text: t("Imported {sources} and the action {name}.", { sources: counted(added.length, "source"), name: made.name }),
    });
    chooseSource(first);
    chooseAction(made.name);
    go("clips");
    return;
  }
  if (added.length > 1) say({ tone: "good", text: t("Imported {count} sources.", { count: added.length }) });
  chooseSource(first);
  go(added.length <= 1 ? "frames" : "sources");
}

/** Returns the imported sources, or else the one that was cut again. */
async function addSources(
  chosen: readonly Proposal[],
  choicesOf: (proposal: Proposal) => Choices,
  actions: readonly ArrivedAction[],
): Promise<SourceId[]> {
  const arrivals = chosen.flatMap((proposal) => proposal.arrivals(choicesOf(proposal)));
  const recuts = chosen.flatMap((proposal) => (proposal.recut ? [recutting(proposal.recut, choicesOf(proposal))] : []));
  if (arrivals.length + recuts.length === 0) return [];
  if (arrivals.length > 0 && !(await leaveTheDemo(arrivals[0]?.name ?? "art"))) return [];
  const work = begin();
  // Frames are found on the picture with its background cleared and its layers.
  const ready = await Promise.all(
    arrivals.map(async (arrival) => {
      if (!arrival.layers && !(arrival.clearing && arrival.cut)) return arrival;
      const pictures = await Promise.all(looksOf(sourceToBe(arrival)).map(pictureOfLook));
      return { ...arrival, coverages: pictures.map(({ coverage }) => coverage) };
    }),
  );
  const known = new Set(currentProject().sources.map((source) => source.id));
  const change = (project: Project) => {
    let next = ready.length > 0 ? takeIn(project, ready, actions) : project;
    const arrived = noArrivedClips();
    for (const { change } of recuts) next = change(arrived)(next);
    return withArrivedActions(next, actions, arrived.named);
  };
  const recut = recuts[0];
  const label = (project: Project) => (ready.length > 0 || !recut ? takeIn.label(project, ready, actions) : recut.label(project));
  const error = work.apply(change, label);
  if (error?.code === "other-project") throw error;
  sayUnlessDone(error);
  if (!error) for (const { following, file } of recuts) following.tell(file);
  const added = currentProject().sources.filter((source) => !known.has(source.id));
  for (const { description, recut: cutAgain } of chosen) {
    if (!description) continue;
    const source =
      cutAgain?.source ?? added.find(({ cut }) => cut?.by === "metadata" && cut.reading === description.understood.reading)?.id;
    if (source) keepText(source, description);
  }
  return added.length > 0 ? added.map(({ id }) => id) : recuts.map(({ source }) => source);
}

/** A cut of a source that is there, with its clips. */
function recutting({ source, cut, frames, clips, before, add }: Recut, choices: Choices) {
  const args = [source, cut, frames, before?.frames] as const;
  const following = followClips(source, { frames, clips }, before, { add: choices.clips ? add : "none", removeGone: false });
  const change = (arrived: ArrivedClips) => following.after((project) => cutByMetadata(project, ...args), arrived);
  return { source, file: cut.file, following, change, label: (project: Project) => cutByMetadata.label(project, ...args) };
}

function keepText(id: SourceId, { understood, text, path }: TakenDescription): void {
  const { paths, unplaced, grade } = understood;
  const source = currentProject().sources.find((each) => each.id === id);
  if (source) keepMetadataText(source, { text, file: fileOf(path), paths, unplaced, grade });
}

/** New art of sources, one after the other: cut by its metadata if there is any, otherwise its changes are reviewed. */
async function takeNewArt(proposals: readonly Proposal[], choicesOf: (proposal: Proposal) => Choices): Promise<void> {
  const plain: { id: SourceId; pictures: ChangedPicture[] }[] = [];
  const arrived = noArrivedClips();
  for (const proposal of proposals) {
    const source = currentProject().sources.find(({ id }) => id === proposal.known?.source);
    const choices = choicesOf(proposal);
    // Only layers can be taken apart and still be new art of one source.
    const [arrival] = proposal.arrivals(proposal.kind === "layers" ? { ...choices, layers: true } : { ...choices, apart: false });
    if (!source || !arrival) continue;
    if (proposal.description) await takeDescribedArt(source, arrival.pictures[0] as ChangedPicture, proposal.description, arrived);
    else plain.push({ id: source.id, pictures: withLayersOf(source, arrival) });
  }
  await reviewNewArt(plain);
}

async function takeDescribedArt(
  source: Source,
  picture: ChangedPicture,
  description: TakenDescription,
  arrived: ArrivedClips,
): Promise<void> {
  const { understood, path, text } = description;
  const work = begin();
  const file = fileOf(path);
  const now = toldIn(understood, path);
  const before = await toldBefore(source);
  work.stillHas(source);
  const told = before?.frames ?? supposedlyTold(source, now.frames);
  const cut = cutByFile(path, text, understood.reading);
  const isSame = source.pictures[0]?.sha256 === picture.sha256;
  const change = (project: Project) =>
    isSame
      ? cutByMetadata(project, source.id, cut, now.frames, before?.frames)
      : refreshByMetadata(project, source.id, picture, cut, now.frames, told);
  const following = followClips(source.id, now, before, { add: "new", removeGone: false });
  const error = work.apply(following.after(change, arrived), (project) =>
    isSame
      ? cutByMetadata.label(project, source.id, cut, now.frames)
      : refreshByMetadata.label(project, source.id, picture, cut, now.frames, told),
  );
  sayUnlessDone(error);
  if (error) return;
  keepText(source.id, description);
  const after = currentProject().sources.find(({ id }) => id === source.id);
  const keys = new Set(source.frames.map(({ key }) => key));
  const kept = after?.frames.filter(({ key }) => keys.has(key)).length ?? 0;
  const gone = source.frames.length - kept;
  const clips = following.inWords(file);
  const facts = { name: source.name, file, kept, count: (after?.frames.length ?? 0) - kept, gone };
  say({
    tone: gone > 0 ? "trouble" : "good",
    text: `${
      isSame
        ? t("{name} is cut again as {file} says: {kept} frames kept, {count} new, {gone} gone.", facts)
        : t("New art of {name}, cut as {file} says: {kept} frames kept, {count} new, {gone} gone.", facts)
    }${clips && ` ${clips}`}`,
  });
}

/** Someone who drops art of their own onto the untouched demo wants to work on it, not on the demo. */
async function leaveTheDemo(name: string): Promise<boolean> {
  if (!useOpenProject.getState().demo) return true;
  const demo = useOpenProject.getState().id as string;
  // Whatever else arrived meanwhile is included.
  const waiting = takeWaiting();
  if (!(await startProject(name.replace(/\.[^.]*$/, "")))) return false;
  offerAgain(waiting);
  say({
    tone: "plain",
    text: t("Your art is in a project of its own."),
    action: { label: t("Back to the demo"), run: () => inBackground(openProject(demo)) },
  });
  return true;
}
