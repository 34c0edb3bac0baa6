import { CaravanError, whyOf } from "@caravan/core/model";
import { Command, CommanderError, Help, type Option } from "commander";
import manifest from "../package.json" with { type: "json" };
import { beQuiet, failureOf, tellFailure, WrongCall } from "./output";

/** Adds a command to the program. */
type Add = (program: Command) => void;

/** In the order of --help. The code of a command is loaded when it is called. */
const COMMANDS = new Map<string, () => Promise<Add>>([
  ["init", async () => (await import("./commands/init")).addInit],
  ["new", async () => (await import("./commands/new")).addNew],
  ["cut", async () => (await import("./commands/cut")).addCut],
  ["pack", async () => (await import("./commands/pack")).addPack],
  ["build", async () => (await import("./commands/build")).addBuild],
  ["check", async () => (await import("./commands/check")).addCheck],
  ["play", async () => (await import("./commands/play")).addPlay],
  ["rehearse", async () => (await import("./commands/rehearse")).addRehearse],
  ["outline", async () => (await import("./commands/outline")).addOutline],
  ["tiles", async () => (await import("./commands/tiles")).addTiles],
  ["merge", async () => (await import("./commands/merge")).addMerge],
  ["watch", async () => (await import("./commands/watch")).addWatch],
]);

/** The command that is called; all of them if it is none of ours, for help and for the names most like it. */
function wanted(): (() => Promise<Add>)[] {
  const called = COMMANDS.get(process.argv.slice(2).find((word) => !word.startsWith("-")) ?? "");
  return called ? [called] : [...COMMANDS.values()];
}

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
for (const add of await Promise.all(wanted().map((load) => load()))) add(program);
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
