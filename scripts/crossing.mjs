// npm run crossing: builds the demo into examples/crossing/delivered and plays it; `--delivered DIR` plays another delivery, `--port N`.
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync } from "node:fs";
import { createServer } from "node:http";
import { extname, join, normalize } from "node:path";
import { parseArgs } from "node:util";
import { buildCommand } from "./build-command.mjs";
import { installPackages } from "./install.mjs";

const root = join(import.meta.dirname, "..");
const here = join(root, "examples/crossing");
const { values } = parseArgs({ options: { delivered: { type: "string" }, port: { type: "string", default: "4700" } } });

installPackages();
const delivered = values.delivered ?? join(here, "delivered");
if (!values.delivered) {
  await buildCommand();
  mkdirSync(delivered, { recursive: true });
  execFileSync(process.execPath, [
    join(root, "packages/cli/bin/caravan.mjs"),
    "build",
    join(root, "examples/tamarisk-road"),
    "--out",
    delivered,
  ]);
}
const { buildSync } = await import("esbuild");
const [game] = buildSync({ entryPoints: [join(here, "main.ts")], bundle: true, format: "esm", write: false }).outputFiles;

const TYPES = { ".html": "text/html", ".js": "text/javascript", ".json": "application/json", ".png": "image/png" };

const server = createServer((request, answer) => {
  const path = normalize(decodeURIComponent(new URL(request.url, "http://localhost").pathname));
  try {
    if (path === "/") return send(answer, ".html", readFileSync(join(here, "index.html")));
    if (path === "/game.js") return send(answer, ".js", game.contents);
    if (path === "/delivered/atlas.txt") return send(answer, ".txt", atlasName());
    if (path === "/delivered/stamp") return send(answer, ".txt", stamp());
    if (path.startsWith("/delivered/")) return send(answer, extname(path), readFileSync(join(delivered, path.slice("/delivered/".length))));
  } catch {
    // Reported as missing below.
  }
  answer.writeHead(404).end("There is no such file.");
});
server.listen(Number(values.port), () => console.log(`The Crossing is played at http://localhost:${server.address().port}`));

function send(answer, ending, content) {
  answer.setHeader("Content-Type", TYPES[ending] ?? "text/plain");
  answer.end(content);
}

/** The first atlas file of the delivery. */
function atlasName() {
  const name =
    existsSync(delivered) &&
    readdirSync(delivered)
      .sort()
      .find((each) => each.endsWith(".atlas.json"));
  if (!name) throw new Error("No atlas file.");
  return name;
}

/** Changes whenever a delivered file is written. */
function stamp() {
  return readdirSync(delivered)
    .sort()
    .filter((name) => !name.startsWith("."))
    .map((name) => `${name} ${statSync(join(delivered, name)).mtimeMs}`)
    .join("\n");
}
