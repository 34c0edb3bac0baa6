// Serves the built studio: build output for browsers in its compressed form, everything else through Next. HOST and PORT set the address;
// without a host, only this machine can connect.
import { readdirSync, readFileSync } from "node:fs";
import { createServer } from "node:http";
import { createRequire } from "node:module";
import { join, relative } from "node:path";

const studio = join(import.meta.dirname, "../apps/studio");
// The folder that Next serves from: the studio's own server looks for the command relative to it.
process.chdir(studio);
const hostname = process.env.HOST || "127.0.0.1";
const port = Number(process.env.PORT) || 4600;

const TYPES = { js: "text/javascript; charset=utf-8", css: "text/css; charset=utf-8", wasm: "application/wasm" };

/** Packed files by the path that asks for them: only what lies there now is ever sent. */
function packedFiles() {
  const made = join(studio, ".next/static");
  const packed = new Map();
  for (const entry of readdirSync(made, { recursive: true, withFileTypes: true })) {
    const [, type] = /\.(js|css|wasm)\.br$/.exec(entry.name) ?? [];
    if (!type) continue;
    const file = join(entry.parentPath, entry.name);
    const path = `/_next/static/${relative(made, file).replaceAll("\\", "/").slice(0, -".br".length)}`;
    packed.set(path, { bytes: readFileSync(file), type: TYPES[type] });
  }
  return packed;
}

const next = createRequire(join(studio, "package.json"))("next");
const app = next({ dev: false, dir: studio, hostname, port });
await app.prepare();
const handle = app.getRequestHandler();
const packed = packedFiles();

const server = createServer((request, response) => {
  const found = packed.get(request.url?.split("?")[0] ?? "");
  const takes = /\bbr\b/.test(String(request.headers["accept-encoding"]));
  if (!found || !takes || (request.method !== "GET" && request.method !== "HEAD")) return handle(request, response);
  response.writeHead(200, {
    "Content-Type": found.type,
    "Content-Encoding": "br",
    "Content-Length": found.bytes.length,
    "Cache-Control": "public, max-age=31536000, immutable",
    Vary: "Accept-Encoding",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Resource-Policy": "same-origin",
  });
  response.end(request.method === "HEAD" ? undefined : found.bytes);
});
server.listen(port, hostname, () => console.log("Ready"));
for (const signal of ["SIGINT", "SIGTERM"])
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
