/** Proposals for incoming metadata, either with its picture or for an existing source. */
import type { Understood, Unplaced } from "../metadata";
import { counted, type SourceId } from "../model";
import { t } from "../words";
import { fileOf, stillOf, type TakenDescription, type TakenItem } from "./drop-contents";
import { framesAndClips, marksInWords } from "./frames-and-clips";
import { clearingFor, type Proposal, type ProposedClip, USUAL_CHOICES } from "./proposal";

export function describedProposal(item: TakenItem, description: TakenDescription, name: string): Proposal {
  const { path, understood } = description;
  const picture = stillOf(item);
  const { told, clips: named } = framesAndClips(understood, path);
  const { unplaced, reading } = understood;
  const cut = { by: "metadata", file: fileOf(path), reading } as const;
  const clips = (clearing: ReturnType<typeof clearingFor>) =>
    named.map(
      (clip): ProposedClip => ({
        ...clip,
        // Clips with the same name and file on several pictures are one.
        ref: `${path}\n${clip.name}`,
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
    notes: [...doubtsOf(understood), ...misfits(unplaced)],
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

export function recutProposal(description: TakenDescription, { source, name }: { source: SourceId; name: string }): Proposal {
  const { path, understood } = description;
  const { told } = framesAndClips(understood, path);
  return {
    description,
    id: path,
    name,
    what: t("Cut into {frames}, as {file} says{marks}", {
      frames: counted(told.length, "frame"),
      file: fileOf(path),
      marks: marksInWords(understood),
    }),
    notes: [...doubtsOf(understood), ...misfits(understood.unplaced)],
    unplaced: understood.unplaced,
    shows: [],
    kind: "recut",
    ground: null,
    usual: USUAL_CHOICES,
    clips: () => [],
    arrivals: () => [],
    recut: { source, reading: understood.reading, file: fileOf(path), frames: told },
  };
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
