/** The built studio, served for a bench. */
import { type ChildProcess, spawn } from "node:child_process";
import { join } from "node:path";

const PORT = 4690;
export const STUDIO = `http://localhost:${PORT}/`;

/** Rejects if the studio is not built. */
export function serveStudio(): Promise<ChildProcess> {
  const next = join(import.meta.dirname, "../node_modules/next/dist/bin/next");
  const studio = join(import.meta.dirname, "../apps/studio");
  const server = spawn(process.execPath, [next, "start", "-p", String(PORT)], { cwd: studio, stdio: ["ignore", "pipe", "inherit"] });
  return new Promise((resolve, reject) => {
    server.stdout?.on("data", (text) => String(text).includes("Ready") && resolve(server));
    server.on("exit", () => reject(new Error("The studio does not start: is it built?")));
  });
}
