import { readFileSync } from "node:fs";
import { behaviourNamed, CaravanError, microsFromMs, msFromMicros, type Track, whyOf } from "@caravan/core/model";
import { repeatedKey } from "@caravan/core/notation";
import { accountOf, checkedTrack, programOf, rowInWords, shownIn, soundBehaviour } from "@caravan/core/rehearse";
import type { Command } from "commander";
import { times } from "../options";
import { note, tell } from "../output";
import { openDocument } from "../project";

export function addRehearse(program: Command): void {
  program
    .command("rehearse")
    .summary("run a behaviour on a recorded track")
    .description("Runs a behaviour on a track of inputs and prints which rule showed when and why, and what shows at given times.")
    .argument("<project>", "a project folder, its caravan.json, or a *.caravan file")
    .requiredOption("--behaviour <name>", "the behaviour")
    .requiredOption("--track <file>", "a JSON list of inputs in order of time")
    .option("--at <ms[,ms...]>", "times in milliseconds", times)
    .option("--json", "print one JSON document", false)
    .action(rehearse);
}

interface RehearseOptions {
  readonly behaviour: string;
  readonly track: string;
  readonly at?: number[];
  readonly json: boolean;
}

function rehearse(path: string, options: RehearseOptions): void {
  const project = openDocument(path);
  const behaviour = behaviourNamed(project, options.behaviour);
  const track = readTrack(options.track, behaviour);
  const sound = new Set(soundBehaviour(project, behaviour).rules.map(({ name }) => name));
  for (const { name, off } of behaviour.rules)
    if (!off && !sound.has(name))
      note(
        `caravan: rule "${name}" of "${behaviour.name}" never shows: it names something that the project does not have. See caravan check.`,
      );
  const program = programOf(project, behaviour);
  const at = options.at ?? [];
  const { rows, states } = accountOf(program, track, { asked: at.map(microsFromMs) });
  const account = rows.map((row) => ({ at: msFromMicros(row.at), rule: row.rule, play: row.play, why: row.why }));
  const shown = states.map((state, k) => ({ at: at[k] as number, ...shownIn(project, program, state) }));
  tell(options.json, { account, shown }, () =>
    [
      ...account.map((row) => `${row.at} ms: ${rowInWords(row)}`),
      ...shown.map(
        ({ at, rule, frame, clip, mirror }) =>
          `at ${at} ms: ${frame ?? "nothing"}${mirror ? ", mirrored" : ""}${clip === null ? "" : ` of ${clip}, by ${rule}`}`,
      ),
    ].join("\n"),
  );
}

/** Throws `not-found` or `bad-track`. */
function readTrack(path: string, behaviour: Parameters<typeof checkedTrack>[1]): Track {
  let text: string;
  try {
    text = readFileSync(path, "utf8");
  } catch (cause) {
    throw new CaravanError("not-found", path, `The track cannot be read (${whyOf(cause)}).`, "Check the path.", { cause });
  }
  let content: unknown;
  try {
    content = JSON.parse(text);
  } catch (cause) {
    throw new CaravanError("bad-track", path, `The track is not JSON (${whyOf(cause)}).`, "Correct it, or record it again at Rehearse.", {
      cause,
    });
  }
  const twice = repeatedKey(text);
  if (twice)
    throw new CaravanError(
      "bad-track",
      `${path}, line ${twice.lines[1]}`,
      `"${twice.key}" stands twice in entry ${twice.path.join(", ")}, and only the last would be given.`,
      "Make two entries, or remove one.",
    );
  return checkedTrack(content, behaviour, path);
}
