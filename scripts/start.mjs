// npm start: installs and builds what is missing, then serves the studio on a free port and prints its address.
import { spawn } from "node:child_process";
import { createServer } from "node:net";
import { join } from "node:path";
import { installPackages } from "./install.mjs";

const root = join(import.meta.dirname, "..");

installPackages();
const { buildCommand } = await import("./build-command.mjs");
const { buildStudio } = await import("./build-studio.mjs");
console.log("Building the studio if it changed …");
await buildCommand();
if (!(await buildStudio())) process.exit(1);

// Only this machine may ask, unless HOST says otherwise: the studio builds what it is sent.
const host = process.env.HOST || "127.0.0.1";
const port = await freePort(Number(process.env.PORT) || 4600);
const server = spawn(process.execPath, [join(root, "scripts/serve-studio.mjs")], {
  stdio: ["ignore", "pipe", "inherit"],
  env: { ...process.env, HOST: host, PORT: String(port), NODE_ENV: "production", NEXT_TELEMETRY_DISABLED: "1", CARAVAN_HOST: host },
});
server.stdout.on("data", (text) => {
  if (String(text).includes("Ready"))
    console.log(`\nCaravan is ready: http://${host === "127.0.0.1" ? "localhost" : host}:${port}\nCtrl+C ends it.`);
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("close", (code) => process.exit(code ?? 0));

/** The wanted port, or the next one that nobody listens on. */
async function freePort(wanted) {
  for (let port = wanted; port < wanted + 100; port++) if (await isFree(port)) return port;
  throw new Error(`No port from ${wanted} to ${wanted + 99} is free.`);
}

function isFree(port) {
  return new Promise((answer) => {
    const probe = createServer();
    probe.once("error", () => answer(false));
    probe.once("listening", () => probe.close(() => answer(true)));
    probe.listen(port, host);
  });
}
