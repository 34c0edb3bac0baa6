import { existsSync, readFileSync } from "node:fs";
import { basename, join, resolve } from "node:path";
import { utf8 } from "@caravan/core/codec";
import { CaravanError } from "@caravan/core/model";
import type { Command } from "commander";
import { writeWhole } from "../files";
import { givenPaths } from "../given-paths";
import { note, tell } from "../output";
import { newInWords, newProject } from "./new";

interface InitOptions {
  readonly project: string;
  readonly out: string;
  readonly json: boolean;
}

export function addInit(program: Command): void {
  program
    .command("init")
    .summary("start in a game's repository: a project, and scripts that build it")
    .description(
      "Makes a project from existing art, like `new`, and adds scripts to this folder's package.json that build, watch and check it.",
    )
    .argument("<art...>", "files or folders", givenPaths)
    .option("--project <folder>", "where the project goes", "sprites")
    .option("--out <dir>", "where the game loads from", "assets")
    .option("--json", "print one JSON document", false)
    .action(init);
}

async function init(art: string[], { project, out, json }: InitOptions): Promise<void> {
  // Before anything is written: existing files are kept.
  if (existsSync(join(project, "caravan.json")))
    throw new CaravanError("not-ours", project, "There is a project already.", "Build it, or give another folder with --project.");
  const manifest = readManifest("package.json");
  const made = await newProject(art, {
    ...{
      out: project,
      sheets: "cells",
      first: "s",
      counterClockwise: false,
      clear: true,
      clips: true,
      actions: true,
      replace: false,
      json,
    },
  });
  const guessed = made.sources.filter(({ cut }) => cut === "cell" || cut === "count").map((source) => source.name);
  if (guessed.length > 0) note(`Cut by suggested grids: ${guessed.join(", ")}. Check them in the studio first.`);
  const uncut = made.sources.filter(({ cut }) => cut === null).map((source) => source.name);
  if (uncut.length > 0)
    note(`Not cut yet, because nothing says how: ${uncut.join(", ")}. Cut them in the studio, or with caravan cut, before you build.`);
  const wanted = {
    sprites: `caravan build ${quoted(project)} --out ${quoted(out)} --clean`,
    "sprites:watch": `caravan watch ${quoted(project)} --out ${quoted(out)}`,
    "sprites:check": `caravan check ${quoted(project)} --strict`,
  };
  const { scripts = {} } = manifest.content;
  const added = Object.entries(wanted).filter(([name]) => !Object.hasOwn(scripts, name));
  for (const name of Object.keys(wanted))
    if (Object.hasOwn(scripts, name)) note(`package.json has a script "${name}" already; it was kept.`);
  if (added.length > 0) {
    const content = { ...manifest.content, scripts: { ...scripts, ...Object.fromEntries(added) } };
    writeWhole("package.json", utf8(`${JSON.stringify(content, null, manifest.indent)}\n`));
  }
  const names = added.map(([name]) => name);
  tell(json, { ...made, scripts: Object.fromEntries(added) }, () =>
    [newInWords(made), ...(names.length > 0 ? [`scripts in package.json: ${names.join(", ")}; start with npm run ${names[0]}`] : [])].join(
      "\n",
    ),
  );
}

interface Manifest {
  readonly content: { readonly scripts?: Readonly<Record<string, string>> };
  /** As the file has it. */
  readonly indent: string;
}

/** A new one if there is none. Throws `bad-call` for an unreadable one, which must not be replaced. */
function readManifest(path: string): Manifest {
  if (!existsSync(path)) {
    const name =
      basename(resolve("."))
        .toLowerCase()
        .replace(/[^a-z0-9._-]+/g, "-")
        .replace(/^[._-]+/, "") || "game";
    return { content: { name, private: true } as Manifest["content"], indent: "  " };
  }
  const text = readFileSync(path, "utf8");
  try {
    const content = JSON.parse(text) as Manifest["content"];
    if (typeof content !== "object" || content === null || Array.isArray(content)) throw new Error("It is not an object.");
    return { content, indent: /^[ \t]+(?=")/m.exec(text)?.[0] ?? "  " };
  } catch (cause) {
    throw new CaravanError(
      "bad-call",
      path,
      "It is not JSON, so no scripts can be added.",
      "Repair it, then try again. Nothing was written.",
      { cause },
    );
  }
}

/** For a shell: quoted only if needed. */
function quoted(path: string): string {
  return /^[\w./@-]+$/.test(path) ? path : `"${path.replace(/["\\$`]/g, "\\$&")}"`;
}
