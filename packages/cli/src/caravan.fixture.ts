import { spawnSync } from "node:child_process";
import { join } from "node:path";

const COMMAND = join(import.meta.dirname, "../bin/caravan.mjs");

/** The built command as a person runs it in a folder; `json` reads what it printed. */
export function caravanIn(folder: string) {
  return (...args: string[]) => {
    const { status, stdout, stderr } = spawnSync(process.execPath, [COMMAND, ...args], { encoding: "utf8", cwd: folder });
    return { status, stdout, stderr, json: () => JSON.parse(stdout) };
  };
}
