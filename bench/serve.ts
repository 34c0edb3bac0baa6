/** Serves the built studio for a bench. */
import { type ChildProcess, execSync, spawn } from "node:child_process";
import { join } from "node:path";

const PORT = 4690;
export const STUDIO = `http://localhost:${PORT}/`;

/** Rejects if the studio is not built. */
export function serveStudio(): Promise<ChildProcess> {
  const server = spawn(process.execPath, [join(import.meta.dirname, "../scripts/serve-studio.mjs")], {
    stdio: ["ignore", "pipe", "inherit"],
    env: { ...process.env, HOST: "localhost", PORT: String(PORT), NODE_ENV: "production" },
  });
  return new Promise((resolve, reject) => {
    server.stdout?.on("data", (text) => String(text).includes("Ready") && resolve(server));
    server.on("exit", () => reject(new Error("The studio does not start: is it built?")));
  });
}

/** Resident memory of the browser's renderers, in MB, as the system counts it. */
export function renderersMegabytes(): number {
  const kilobytes = execSync("ps -eo rss,args | grep -- '--type=renderer' | grep -v grep | awk '{sum += $1} END {print sum}'").toString();
  return Math.round(Number(kilobytes) / 1024);
}
