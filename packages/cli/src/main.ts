import { CaravanError, whyOf } from "@caravan/core/model";
import { Command, CommanderError } from "commander";
import { addBuild } from "./commands/build";
import { addCheck } from "./commands/check";
import { addCut } from "./commands/cut";
import { addNew } from "./commands/new";
import { addOutline } from "./commands/outline";
import { addPack } from "./commands/pack";
import { addPlay } from "./commands/play";
import { addRehearse } from "./commands/rehearse";
import { addTiles } from "./commands/tiles";
import { addWatch } from "./commands/watch";
import { note, WrongCall } from "./tell";

const program = new Command("caravan")
  .description("Cuts sprite sheets into frames, builds animation clips, and delivers packed atlases that a game loads.")
  .showHelpAfterError("Add --help for what the command takes.")
  .exitOverride();
for (const add of [addNew, addCut, addPack, addBuild, addCheck, addPlay, addRehearse, addOutline, addTiles, addWatch]) add(program);
// Commands made before exitOverride would still exit by themselves.
for (const command of program.commands) command.exitOverride().showHelpAfterError("Add --help for what the command takes.");

/** 0 done, 1 the work failed or found errors, 2 the call was wrong. */
function exitStatus(error: unknown): number {
  if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
  if (error instanceof WrongCall) {
    note(`caravan: ${error.message}`);
    return 2;
  }
  if (error instanceof CaravanError) {
    note(`caravan: ${error.message.replace(/\s+/g, " ")}`);
    return 1;
  }
  note(`caravan: Internal error: ${whyOf(error)} Please report it.`);
  return 1;
}

// A reader that has seen enough, such as `head`, closes the pipe: that is no failure.
process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code === "EPIPE") process.exit(0);
  throw error;
});

try {
  await program.parseAsync();
} catch (error) {
  process.exitCode = exitStatus(error);
}
