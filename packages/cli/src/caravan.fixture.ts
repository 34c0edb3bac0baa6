import { spawnSync } from "node:child_process";
import { join } from "node:path";

const COMMAND = join(import.meta.dirname, "../bin/caravan.mjs");

/** The built command as a person runs it in a folder; `json` reads what it printed. Builds are remembered in `cache`, by default nowhere. */
export function caravanIn(folder: string, cache = "") {
  return (...args: string[]) => {
    const { status, stdout, stderr } = spawnSync(process.execPath, [COMMAND, ...args], {
      encoding: "utf8",
      cwd: folder,
      env: { ...process.env, CARAVAN_CACHE: cache },
    });
    return { status, stdout, stderr, json: () => JSON.parse(stdout) };
  };
}
