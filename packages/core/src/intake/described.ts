/** Proposals for incoming metadata, either with its picture or for an existing source. */
import type { Understood, Unplaced } from "../metadata";
import { counted, type SourceId } from "../model";
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
    what: `A sheet with ${counted(told.length, "frame")}${named.length > 0 ? ` and ${counted(named.length, "clip")}` : ""}, as ${fileOf(path)} says${marksInWords(understood)}`,
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
    what: `Cut into ${counted(told.length, "frame")}, as ${fileOf(path)} says${marksInWords(understood)}`,
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
    : [`Not sure: ${grade.reasons.join("; ")}. Check the frames on the sheet, and correct the fields there.`];
}

function misfits(unplaced: readonly Unplaced[]): string[] {
  return unplaced.length > 0
    ? [`${counted(unplaced.length, "record does", "records do")} not fit and ${unplaced.length === 1 ? "is" : "are"} left out.`]
    : [];
}
