/** Adds the chosen parts of a drop to the project: new sources with clips and actions, metadata for sources, new art for sources. */

import { looksOf } from "@caravan/core/art";
import {
  type ArrivedAction,
  type ArrivedClips,
  type ChangedPicture,
  noArrivedClips,
  sourceToBe,
  takeIn,
  withArrivedActions,
} from "@caravan/core/edit";
import { type Choices, fileOf, type Proposal, type TakenDescription } from "@caravan/core/intake";
import { counted, type Project, type Source, type SourceId } from "@caravan/core/model";
import { inBackground } from "../../ui/in-background";
import { say, sayTrouble, sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";
import { begin } from "../begun";
import { withLayersOf } from "../changed-art/layered";
import { reviewNewArt } from "../changed-art/review";
import { keepMetadataText, toldBefore } from "../metadata-texts";
import { currentProject, useOpenProject } from "../open-project";
import { pictureOfLook } from "../pictures";
import { openProject, startProject } from "../projects";
import { chooseAction, chooseSource, go } from "../view";
import { cutAsSaid, cutWithArt, sayOutcome } from "./cut-again";
import { offerAgain, takeWaiting } from "./review";

/** What was imported, and what comes after it: new art of sources, once it was reviewed; true if nothing failed. */
interface Imported {
  readonly reviewed: Promise<boolean>;
}

/** Imports the chosen things as one undo entry, and opens the stop where work on them begins. New art of sources is then reviewed. */
export async function bringingIn(
  proposals: readonly Proposal[],
  choicesOf: (proposal: Proposal) => Choices,
  actions: readonly ArrivedAction[],
): Promise<Imported> {
  const chosen = proposals.filter((proposal) => choicesOf(proposal).include);
  const before = new Set(useOpenProject.getState().demo ? [] : currentProject().actions.map(({ name }) => name));
  const newArt = chosen.filter((proposal) => proposal.known && choicesOf(proposal).replaces);
  const others = chosen.filter((proposal) => !newArt.includes(proposal));
  const taken = await addSources(others, choicesOf, actions);
  const isTaken = others.length === 0 || taken.added.length + taken.again.length > 0;
  const reviewed = takeNewArt(newArt, choicesOf, actions).catch((error) => {
    sayTrouble(error);
    return false;
  });
  const [first] = [...newArt.flatMap(({ known }) => known?.source ?? []), ...taken.added, ...taken.again];
  if (first !== undefined) goWhereWorkBegins(first, taken, before);
  return { reviewed: reviewed.then((isReviewed) => isReviewed && isTaken) };
}

function goWhereWorkBegins(first: SourceId, { added, again }: Taken, actionsBefore: ReadonlySet<string>): void {
  const made = currentProject().actions.find(({ name }) => !actionsBefore.has(name));
  chooseSource(first);
  if (made) {
    say({
      tone: "good",
      text: t("Imported {sources} and the action {name}.", { sources: counted(added.length + again.length, "source"), name: made.name }),
    });
    chooseAction(made.name);
    go("clips");
    return;
  }
  if (added.length > 1) say({ tone: "good", text: t("Imported {count} sources.", { count: added.length }) });
  go(added.length + again.length <= 1 ? "frames" : "sources");
}

interface Taken {
  readonly added: readonly SourceId[];
  /** Sources that were there already, cut again. */
  readonly again: readonly SourceId[];
}

const NOTHING: Taken = { added: [], again: [] };

/** Nothing if it failed, which is said. */
async function addSources(
  chosen: readonly Proposal[],
  choicesOf: (proposal: Proposal) => Choices,
  actions: readonly ArrivedAction[],
): Promise<Taken> {
  const arrivals = chosen.flatMap((proposal) => proposal.arrivals(choicesOf(proposal)));
  const recuts = chosen.flatMap((proposal) => (proposal.recut ? [cutAsSaid(proposal.recut, choicesOf(proposal).clips)] : []));
  if (arrivals.length + recuts.length === 0) return NOTHING;
  if (arrivals.length > 0 && !(await leaveTheDemo(arrivals[0]?.name ?? "art"))) return NOTHING;
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
  const messages: (() => void)[] = [];
  const change = (project: Project) => {
    let next = ready.length > 0 ? takeIn(project, ready, actions) : project;
    const arrived = noArrivedClips();
    for (const again of recuts) {
      const before = next;
      const { project: after, news } = again.change(before, arrived);
      messages.push(() => sayOutcome(again, before, after, news));
      next = after;
    }
    return withArrivedActions(next, actions, arrived.named);
  };
  const recut = recuts[0];
  const label = (project: Project) => (ready.length > 0 || !recut ? takeIn.label(project, ready, actions) : recut.label(project));
  const error = work.apply(change, label);
  if (error?.code === "other-project") throw error;
  if (!sayUnlessDone(error)) return NOTHING;
  for (const show of messages) show();
  const added = currentProject().sources.filter((source) => !known.has(source.id));
  for (const { description, recut: cutAgain } of chosen) {
    if (!description) continue;
    const source =
      cutAgain?.source ?? added.find(({ cut }) => cut?.by === "metadata" && cut.reading === description.understood.reading)?.id;
    if (source) keepText(source, description);
  }
  return { added: added.map(({ id }) => id), again: recuts.map(({ source }) => source) };
}

function keepText(id: SourceId, { understood, text, path }: TakenDescription): void {
  const { paths, unplaced, grade } = understood;
  const source = currentProject().sources.find((each) => each.id === id);
  if (source) keepMetadataText(source, { text, file: fileOf(path), paths, unplaced, grade });
}

/** New art of sources, one after the other: cut by its metadata if there is any, otherwise its changes are reviewed. True if nothing failed. */
async function takeNewArt(
  proposals: readonly Proposal[],
  choicesOf: (proposal: Proposal) => Choices,
  actions: readonly ArrivedAction[],
): Promise<boolean> {
  let isDone = true;
  const plain: { id: SourceId; pictures: ChangedPicture[]; file: string }[] = [];
  const arrived = noArrivedClips();
  for (const proposal of proposals) {
    const source = currentProject().sources.find(({ id }) => id === proposal.known?.source);
    const choices = choicesOf(proposal);
    // Only layers can be taken apart and still be new art of one source.
    const [arrival] = proposal.arrivals(proposal.kind === "layers" ? { ...choices, layers: true } : { ...choices, apart: false });
    if (!source || !arrival) continue;
    if (proposal.description)
      isDone = (await takeDescribedArt(source, arrival.pictures[0] as ChangedPicture, proposal.description, arrived, actions)) && isDone;
    else plain.push({ id: source.id, pictures: withLayersOf(source, arrival), file: fileOf(proposal.id) });
  }
  return (plain.length === 0 || (await reviewNewArt(plain))) && isDone;
}

async function takeDescribedArt(
  source: Source,
  picture: ChangedPicture,
  description: TakenDescription,
  arrived: ArrivedClips,
  actions: readonly ArrivedAction[],
): Promise<boolean> {
  const work = begin();
  const again = cutWithArt(source, picture, description, await toldBefore(source));
  work.stillHas(source);
  let tell = () => {};
  const change = (project: Project) => {
    const known = new Set(arrived.named.keys());
    const { project: after, news } = again.change(project, arrived);
    tell = () => sayOutcome(again, project, after, news);
    // Clips of the sources before it have been put into their actions.
    return withArrivedActions(after, actions, new Map([...arrived.named].filter(([ref]) => !known.has(ref))));
  };
  if (!sayUnlessDone(work.apply(change, again.label))) return false;
  keepText(source.id, description);
  tell();
  return true;
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
