// Bundles the service worker of the built studio into apps/studio/public/sw.js, with the list of the build's files.
import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";

const root = join(import.meta.dirname, "..");
const studio = join(root, "apps/studio");

/** Reads what `next build` made. Throws what the bundler has to say. */
export async function buildServiceWorker() {
  const { build } = await import("esbuild");
  const made = join(studio, ".next/static");
  const files = readdirSync(made, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !/\.(map|br)$/.test(entry.name))
    .map((entry) => `/_next/static/${relative(made, join(entry.parentPath, entry.name)).replaceAll("\\", "/")}`)
    .sort();
  await build({
    entryPoints: [join(studio, "src/offline/service-worker.ts")],
    outfile: join(studio, "public/sw.js"),
    bundle: true,
    minify: true,
    target: "es2022",
    logLevel: "warning",
    define: { BUILD: JSON.stringify(readFileSync(join(studio, ".next/BUILD_ID"), "utf8").trim()), FILES: JSON.stringify(files) },
  });
}
