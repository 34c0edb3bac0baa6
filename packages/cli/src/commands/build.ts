import { findingsOf } from "@caravan/core/check";
import { sha256Hex } from "@caravan/core/codec";
import { deliver } from "@caravan/core/deliver";
import type { FrameChanges } from "@caravan/core/edit";
import type { Command } from "commander";
import { writeFiles } from "../files";
import { pngCodec } from "../png";
import { openProject } from "../project";
import { note, tell } from "../tell";
import { toldFinding } from "./check";

export function addBuild(program: Command): void {
  program
    .command("build")
    .summary("make everything a project delivers")
    .description("Makes everything the project's delivery settings ask for, proves it by reading it back, and writes it.")
    .argument("<project>", "a project folder, its caravan.json, or a *.caravan file")
    .requiredOption("--out <dir>", "where the files go")
    .option("--json", "print one JSON document", false)
    .action(build);
}

function build(path: string, options: { out: string; json: boolean }): void {
  const { project, pictures, refreshed } = openProject(path);
  for (const { source, changes } of refreshed) note(`Changed art, cut again by its recipe: ${source} (${changesInWords(changes)})`);
  const built = project.deliveries.map((delivery) => deliver(project, delivery, pictures, pngCodec()));
  const files = built.flatMap((delivery) => delivery.files);
  writeFiles(options.out, files);
  const told = {
    files: files.map((file) => ({ path: file.path, bytes: file.bytes.length, sha256: sha256Hex(file.bytes) })),
    findings: findingsOf(project).map(toldFinding),
  };
  tell(options.json, told, () =>
    [
      ...told.files.map((file) => `${file.path}: ${file.bytes} bytes`),
      ...built.map(
        ({ proof }) => `${proof.exact} of ${proof.frames} frames placed, ${proof.shared} shared, ${proof.clips} clips, every pixel checked`,
      ),
    ].join("\n"),
  );
}

/** `61 the same, 2 changed, 4 new, 1 gone`. */
function changesInWords({ same, changed, added, gone }: FrameChanges): string {
  const parts = [
    [same.length, "the same"],
    [changed.length, "on changed pictures"],
    [added.length, "new"],
    [gone.length, "gone"],
  ] as const;
  return (
    parts
      .filter(([count]) => count > 0)
      .map(([count, word]) => `${count} ${word}`)
      .join(", ") || "no frames"
  );
}
