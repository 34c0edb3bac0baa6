import { CaravanError, whyOf } from "@caravan/core/model";
import { Command, CommanderError, Help, type Option } from "commander";
import manifest from "../package.json" with { type: "json" };
import { addBuild } from "./commands/build";
import { addCheck } from "./commands/check";
import { addCut } from "./commands/cut";
import { addInit } from "./commands/init";
import { addMerge } from "./commands/merge";
import { addNew } from "./commands/new";
import { addOutline } from "./commands/outline";
import { addPack } from "./commands/pack";
import { addPlay } from "./commands/play";
import { addRehearse } from "./commands/rehearse";
import { addTiles } from "./commands/tiles";
import { addWatch } from "./commands/watch";
import { beQuiet, failureOf, tellFailure, WrongCall } from "./output";

const help = new Help();

/** A switch that is off and a list that is empty are not mentioned as defaults. */
function described(option: Option): string {
  const { defaultValue, defaultValueDescription } = option;
  const isUnsaid = defaultValue === false || (Array.isArray(defaultValue) && defaultValueDescription === undefined);
  return help.optionDescription(isUnsaid ? Object.create(option, { defaultValue: { value: undefined } }) : option);
}

const program = new Command("caravan")
  .description("Cuts sprite sheets into frames, builds animation clips, and delivers packed atlases that a game loads.")
  .version(manifest.version, "--version", "print the version")
  .configureHelp({ optionDescription: described })
  .option("--quiet", "print only errors and requested JSON", false)
  .hook("preAction", () => {
    if (program.opts().quiet) beQuiet();
  })
  .showHelpAfterError("Add --help for what the command takes.")
  .exitOverride();
for (const add of [addInit, addNew, addCut, addPack, addBuild, addCheck, addPlay, addRehearse, addOutline, addTiles, addMerge, addWatch])
  add(program);
// Commands made before exitOverride would still exit by themselves.
for (const command of program.commands) command.exitOverride().showHelpAfterError("Add --help for what the command takes.");

/** 0 done, 1 the work failed or found errors, 2 the call was wrong. */
function exitStatus(error: unknown): number {
  if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
  const json = process.argv.includes("--json");
  if (error instanceof WrongCall) {
    tellFailure(json, { code: "bad-call", where: "call", message: error.message });
    return 2;
  }
  if (error instanceof CaravanError) {
    tellFailure(json, failureOf(error));
    return 1;
  }
  tellFailure(json, { code: "internal", where: "caravan", message: `Internal error: ${whyOf(error)} Please report it.` });
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
