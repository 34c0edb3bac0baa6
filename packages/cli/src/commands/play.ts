import { nearestPresent } from "@caravan/core/facing";
import { facingOfClip, partsOfProject } from "@caravan/core/marks";
import {
  actionNamed,
  CaravanError,
  type Clip,
  type ClipName,
  clipNamed,
  FACINGS,
  type Facing,
  type FrameRef,
  facingsPresent,
  findFrame,
  frameName,
  microsFromMs,
  type Project,
} from "@caravan/core/model";
import { placedParts } from "@caravan/core/parts";
import { playedAt, timelineOf } from "@caravan/core/playback";
import { type Command, Option } from "commander";
import { times } from "../options";
import { tell, wrongCall } from "../output";
import { openDocument } from "../project";

export function addPlay(program: Command): void {
  program
    .command("play")
    .summary("list which frame a clip or an action shows at given times")
    .description("Lists which frame a clip, or an action in a facing, shows at given times, and the parts attached to it.")
    .argument("<project>", "a project folder, its caravan.json, or a *.caravan file")
    .option("--clip <name>", "the clip")
    .option("--action <name>", "an action instead; a missing facing falls back to the nearest")
    .addOption(new Option("--facing <facing>", "the action's facing").choices(FACINGS).default("s"))
    .requiredOption("--at <ms[,ms...]>", "times in milliseconds", times)
    .option("--json", "print one JSON document", false)
    .action(play);
}

interface PlayOptions {
  readonly clip?: string;
  readonly action?: string;
  readonly facing: Facing;
  readonly at: number[];
  readonly json: boolean;
}

function play(path: string, options: PlayOptions): void {
  const project = openDocument(path);
  const { clip, turned } = chosen(project, options);
  if (clip.steps.length === 0)
    throw new CaravanError("empty-clip", `clip "${clip.name}"`, "It has no steps.", "Add frames to it in the studio.");
  const timeline = timelineOf(clip);
  // Turned as a game turns them, to any angle.
  const world = { ...partsOfProject(project), quarters: false };
  const told = options.at.map((at) => {
    const now = microsFromMs(at);
    const { frame, step, pass, ended } = playedAt(clip, timeline, now);
    const { facing = facingOfClip(project, clip), mirror = false } = turned ?? {};
    const placed = frame ? placedParts(world, { clip: clip.name, mirror, facing, step, time: now, since: now }) : [];
    const parts = placed.map((part) => ({ ...part, frame: shownName(project, part.frame as FrameRef) }));
    return { at, frame: frame && shownName(project, frame), step, pass, ended, ...turned, ...(parts.length > 0 ? { parts } : {}) };
  });
  tell(options.json, told, () =>
    told
      .flatMap(({ at, frame, step, pass, ended, parts = [] }) => [
        `${at} ms: ${frame ?? "nothing"}, step ${step}, pass ${pass}${ended ? ", ended" : ""}`,
        ...parts.map(
          (part) =>
            `  ${part.front ? "over" : "under"} it ${part.name}: ${part.frame} at ${part.x}, ${part.y}${part.mirror ? ", mirrored" : ""}${part.angle ? `, turned by ${part.angle}°` : ""}`,
        ),
      ])
      .concat(turned ? [`as ${turned.clip}, looking ${turned.facing}${turned.mirror ? ", mirrored" : ""}`] : [])
      .join("\n"),
  );
}

/** The clip that is asked for; of an action the one that its facing shows. */
function chosen(
  project: Project,
  { clip, action, facing }: PlayOptions,
): { clip: Clip; turned?: { clip: ClipName; facing: Facing; mirror: boolean } } {
  if ((clip === undefined) === (action === undefined)) throw wrongCall("Say what to play: either --clip NAME or --action NAME.");
  if (clip !== undefined) return { clip: clipNamed(project, clip) };
  const { name, ...rose } = actionNamed(project, action as string);
  const shown = nearestPresent(facing, facingsPresent(rose));
  const petal = shown && rose.facings[shown];
  if (!petal) throw new CaravanError("empty-clip", `action "${name}"`, "It has no clip in any facing.", "Give it one in the studio.");
  return { clip: clipNamed(project, petal.clip), turned: { clip: petal.clip, facing: shown, mirror: petal.mirror === true } };
}

function shownName(project: Project, ref: FrameRef): string | null {
  const found = findFrame(project, ref);
  return found && frameName(found.source, found.frame);
}
