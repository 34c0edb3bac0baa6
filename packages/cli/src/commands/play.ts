import { playedAt, timelineOf } from "@caravan/core/clip";
import { CaravanError, clipNamed, type FrameRef, findFrame, frameName, microsFromMs, type Project } from "@caravan/core/model";
import type { Command } from "commander";
import { times } from "../options";
import { openDocument } from "../project";
import { tell } from "../tell";

export function addPlay(program: Command): void {
  program
    .command("play")
    .summary("tell which frame a clip shows when")
    .description("Tells which frame a clip shows at times since its start.")
    .argument("<project>", "a project folder, its caravan.json, or a *.caravan file")
    .requiredOption("--clip <name>", "the clip")
    .requiredOption("--at <ms[,ms...]>", "times in milliseconds", times)
    .option("--json", "print one JSON document", false)
    .action(play);
}

function play(path: string, options: { clip: string; at: number[]; json: boolean }): void {
  const project = openDocument(path);
  const clip = clipNamed(project, options.clip);
  if (clip.steps.length === 0)
    throw new CaravanError("empty-clip", `clip "${clip.name}"`, "It has no steps.", "Add frames to it in the studio.");
  const timeline = timelineOf(clip);
  const told = options.at.map((at) => {
    const { frame, step, pass, ended } = playedAt(clip, timeline, microsFromMs(at));
    return { at, frame: frame && shownName(project, frame), step, pass, ended };
  });
  tell(options.json, told, () =>
    told
      .map(({ at, frame, step, pass, ended }) => `${at} ms: ${frame ?? "nothing"}, step ${step}, pass ${pass}${ended ? ", ended" : ""}`)
      .join("\n"),
  );
}

function shownName(project: Project, ref: FrameRef): string | null {
  const found = findFrame(project, ref);
  return found && frameName(found.source, found.frame);
}
