/** Proposals for incoming metadata, either with its picture or for an existing source. */
import { type ArrivedClip, clipsToAdd } from "../edit";
import type { Understood, Unplaced } from "../metadata";
import { type Clip, counted, type Source } from "../model";
import { t } from "../words";
import { type DescribedSource, fileOf, stillOf, type TakenDescription, type TakenItem } from "./drop-contents";
import { cutByFile, framesAndClips, marksInWords, refOf, tooLongInWords } from "./frames-and-clips";
import { clearingFor, type Proposal, type ProposedClip, type ShownFrame, USUAL_CHOICES } from "./proposal";

export function describedProposal(item: TakenItem, description: TakenDescription, name: string): Proposal {
  const { path, text, understood } = description;
  const picture = stillOf(item);
  const { told, clips: named } = framesAndClips(understood, path);
  const { unplaced, reading } = understood;
  const cut = cutByFile(path, text, reading);
  const clips = (clearing: ReturnType<typeof clearingFor>) =>
    named.map(
      (clip): ProposedClip => ({
        ...clip,
        shows: clip.steps.flatMap(({ frame }) => {
          const each = told[frame];
          return each ? [{ sha256: picture.sha256, ...clearing, rect: each.rect, turned: each.turned }] : [];
        }),
      }),
    );
  return {
    description,
    id: item.path,
    name,
    what:
      named.length > 0
        ? t("A sheet with {frames} and {clips}, as {file} says{marks}", {
            frames: counted(told.length, "frame"),
            clips: counted(named.length, "clip"),
            file: fileOf(path),
            marks: marksInWords(understood),
          })
        : t("A sheet with {frames}, as {file} says{marks}", {
            frames: counted(told.length, "frame"),
            file: fileOf(path),
            marks: marksInWords(understood),
          }),
    notes: [...doubtsOf(understood), ...tooLongInWords(understood), ...misfits(unplaced)],
    unplaced,
    shows: [picture],
    kind: "described",
    ground: picture.ground,
    usual: USUAL_CHOICES,
    clips: (choices) => clips(clearingFor(picture.ground, choices)),
    arrivals: (choices) => {
      const clearing = clearingFor(picture.ground, choices);
      const pictures = [{ sha256: picture.sha256, width: picture.width, height: picture.height }];
      return [{ name, pictures, cut, told, clips: choices.clips ? clips(clearing) : [], ...clearing }];
    },
  };
}

export function recutProposal(description: TakenDescription, of: DescribedSource, source: Source | null, clips: readonly Clip[]): Proposal {
  const { path, understood } = description;
  const file = fileOf(path);
  const told = framesAndClips(understood, path);
  const now = { frames: told.told, clips: told.clips };
  const missing = source ? clipsToAdd(clips, source, now, of.before) : [];
  // Those that were removed since are offered too, if the file has no other.
  const fresh = missing.filter(({ isNew }) => isNew);
  const add = fresh.length > 0 ? "new" : "all";
  const picture = source?.pictures[0];
  const shown = (clip: ArrivedClip): ProposedClip => ({
    ...clip,
    ref: refOf(path, clip.name),
    shows: clip.steps.flatMap(({ frame }) => {
      const each = now.frames[frame];
      return each && source && picture ? [{ sha256: picture.sha256, ...clearingOf(source), rect: each.rect, turned: each.turned }] : [];
    }),
  });
  const proposed = (fresh.length > 0 ? fresh : missing).map(({ clip }) => shown(clip));
  const added = new Set(proposed.map(({ ref }) => ref));
  const lacking = new Set(missing.map(({ clip }) => clip.ref));
  const there = now.clips.filter(({ ref }) => !lacking.has(ref)).map(shown);
  const words = { frames: counted(now.frames.length, "frame"), file, marks: marksInWords(understood) };
  return {
    description,
    id: `${path}\n${of.source}`,
    name: of.name,
    what:
      now.clips.length > 0
        ? t("Cut into {frames} with {clips}, as {file} says{marks}", { ...words, clips: counted(now.clips.length, "clip") })
        : t("Cut into {frames}, as {file} says{marks}", words),
    notes: [...doubtsOf(understood), ...tooLongInWords(understood), ...misfits(understood.unplaced)],
    unplaced: understood.unplaced,
    shows: picture ? [picture] : [],
    kind: "recut",
    ground: null,
    usual: { ...USUAL_CHOICES, clips: fresh.length > 0 },
    clips: () => proposed,
    following: { all: [...proposed, ...there], added },
    arrivals: () => [],
    recut: { source: of.source, cut: cutByFile(path, description.text, understood.reading), ...now, before: of.before, add },
  };
}

function clearingOf({ clearing }: Source): Pick<ShownFrame, "clearing"> {
  return clearing ? { clearing } : {};
}

/** What is uncertain about a reading, so that nobody takes it for granted. */
function doubtsOf({ grade }: Understood): string[] {
  return grade.grade === "sure"
    ? []
    : [t("Not sure: {reasons}. Check the frames on the sheet, and correct the fields there.", { reasons: grade.reasons.join("; ") })];
}

function misfits(unplaced: readonly Unplaced[]): string[] {
  return unplaced.length > 0
    ? [
        unplaced.length === 1
          ? t("{records} not fit and is left out.", { records: counted(unplaced.length, "record does", "records do") })
          : t("{records} not fit and are left out.", { records: counted(unplaced.length, "record does", "records do") }),
      ]
    : [];
}
