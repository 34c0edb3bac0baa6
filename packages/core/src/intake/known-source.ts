/** Recognises what comes in as new art of a source that is there: by its name, or by the name of the source's file. */
import { hasOtherTimes } from "../edit";
import { artStem, type Clip, frameRef, isNumberedByFiles, pathKey, type Source, type SourceId, sheetOf } from "../model";
import { numberIn } from "../series";
import { t } from "../words";
import { fileOf } from "./drop-contents";
import { wayAsOneSource } from "./layered-file";
import { withoutEnding } from "./names";
import type { Proposal } from "./proposal";

/** Art with the name of a source, or of a still in a series, is offered as its new art, as is that `of` one; unchanged art is left out. */
export function withKnownSource(proposal: Proposal, sources: readonly Source[], clips: readonly Clip[], of?: SourceId): Proposal {
  return asNewArt(proposal, sources, clips, of) ?? (proposal.kind === "sheet" ? asStill(proposal, sources) : null) ?? proposal;
}

function asNewArt(proposal: Proposal, sources: readonly Source[], clips: readonly Clip[], of?: SourceId): Proposal | null {
  const { kind, usual } = proposal;
  if (kind === "recut") return null;
  const several = kind === "series" || kind === "animation";
  const isCalled = (name: string) => (each: Source) => pathKey(each.name) === pathKey(name) && isSeveral(each) === several;
  // Layers may have names that look like a file's with its ending.
  const source =
    sources.find(({ id }) => id === of) ??
    sources.find(isCalled(proposal.name)) ??
    sources.find(isCalled(withoutEnding(proposal.name))) ??
    // A source that was renamed still has the name of its file.
    sources.find((each) => isSeveral(each) === several && pathKey(fileStemOf(each)) === pathKey(withoutEnding(proposal.name)));
  if (!source) return null;
  const { shows, layers = [] } = proposal;
  const way = kind === "layers" ? wayAsOneSource(proposal, source) : { apart: usual.apart, arrival: { pictures: shows, layers } };
  if (!way) return null;
  const { apart, arrival } = way;
  const own = (name: string) => source.layers?.find((each) => pathKey(each.name) === pathKey(name));
  const same =
    isShown(source.pictures, arrival.pictures) &&
    (arrival.layers ?? []).every(({ name, pictures }) => isShown(own(name)?.pictures ?? [], pictures));
  const known = { source: source.id, name: source.name, isSame: same };
  const timed = kind === "animation" ? withTimesNoted(proposal, source, clips) : proposal;
  const isRetimed = kind === "animation" && hasOtherTimes(source, proposal.arrivals(usual)[0]?.pictures ?? []);
  // With its metadata it may still be cut another way.
  if (!same || isRetimed || kind === "described") return { ...timed, known, usual: { ...usual, apart, layers: true, replaces: true } };
  return leftOut(timed, source.name);
}

/** With a note if the animation shows its pictures for other times than a clip of just these, and what its file said before is not known. */
function withTimesNoted(proposal: Proposal, source: Source, clips: readonly Clip[]): Proposal {
  if (source.pictures.every(({ duration }) => duration !== undefined)) return proposal;
  const times = proposal.clips(proposal.usual)[0]?.steps ?? [];
  const refs = source.frames.map((frame) => frameRef(source, frame));
  const isOfAll = ({ steps }: Clip) => steps.length === refs.length && steps.every(({ frame }, k) => frame === refs[k]);
  const other = clips.find((clip) => isOfAll(clip) && clip.steps.some(({ duration }, k) => duration !== (times[k]?.duration ?? duration)));
  if (!other) return proposal;
  const note = t("Its times differ from those of the clip {clip}, which stay. To have the file's, import it as a new source.", {
    clip: other.name,
  });
  return { ...proposal, notes: [...proposal.notes, note] };
}

/** A single still of a series: `walk_3.png`, where `walk` has a third, or may get one. */
function asStill(proposal: Proposal, sources: readonly Source[]): Proposal | null {
  const [picture] = proposal.shows;
  for (const source of sources) {
    const number =
      isNumberedByFiles(source) && isSeveral(source)
        ? (numberIn(source.name, proposal.name) ?? numberIn(fileStemOf(source), proposal.name))
        : null;
    if (number === null || !picture) continue;
    const before = source.pictures.find((each) => each.number === number);
    if (before?.sha256 === picture.sha256) return leftOut(proposal, source.name);
    const { width, height } = before ?? sheetOf(source);
    return {
      ...proposal,
      known: { source: source.id, name: source.name, isSame: false },
      notes: [
        ...proposal.notes,
        before
          ? t("Picture {number} of {name} has this name.", { number, name: source.name })
          : t("By its name it is picture {number} of {name}, which has none.", { number, name: source.name }),
      ],
      usual: { ...proposal.usual, replaces: width === picture.width && height === picture.height },
      arrivals: (choices) =>
        proposal
          .arrivals(choices)
          .map((arrival) => (choices.replaces ? { ...arrival, pictures: arrival.pictures.map((each) => ({ ...each, number })) } : arrival)),
    };
  }
  return null;
}

function leftOut(proposal: Proposal, name: string): Proposal {
  return {
    ...proposal,
    notes: [...proposal.notes, t("{name} already has this art.", { name })],
    usual: { ...proposal.usual, include: false },
  };
}

function isSeveral({ pictures }: Source): boolean {
  return pictures.length > 1;
}

function fileStemOf(source: Source): string {
  return fileOf(artStem(source));
}

type Shown = { readonly sha256: string };

function isShown(pictures: readonly Shown[], shows: readonly Shown[]): boolean {
  return shows.length === pictures.length && shows.every(({ sha256 }, k) => sha256 === pictures[k]?.sha256);
}
