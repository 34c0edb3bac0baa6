/**
 * Builds an uploaded `*.caravan` as the command line does, in a thread of its own, and hands the files over as one ZIP.
 *
 * The upload goes to disk as it comes, never into memory as a whole; its size, the time, the number at once and the thread's memory
 * are bounded. Everything temporary is removed whatever happens.
 */
import { createReadStream, createWriteStream } from "node:fs";
import { mkdir, mkdtemp, readdir, readFile, rm, stat, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable, Transform } from "node:stream";
import { text } from "node:stream/consumers";
import { pipeline } from "node:stream/promises";
import { Worker } from "node:worker_threads";
import { writeZip } from "@caravan/core/codec";
import { Turns } from "./turns";

/** Largest upload. */
export const MOST_BYTES = 64 * 1024 * 1024;
/** A build that takes longer is stopped. */
const MOST_MS = 120_000;
const turns = new Turns(2, 16);

/** What can go wrong, for the answer: a status of HTTP, and words. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

export interface BuiltZip {
  readonly stream: ReadableStream<Uint8Array>;
  readonly bytes: number;
}

/** Throws `Refusal`: 413 too large, 422 not buildable, with the command's own words, 503 too many at once, 504 too slow. */
export async function buildUpload(body: ReadableStream<Uint8Array>): Promise<BuiltZip> {
  const folder = await mkdtemp(join(tmpdir(), "caravan-build-"));
  try {
    const upload = join(folder, "project.caravan");
    await keep(body, upload);
    const built = await turns.take(() => build(folder, upload));
    if (!built) throw new Refusal(503, "Too many builds are waiting already. Try again in a minute.");
    return built;
  } catch (error) {
    await rm(folder, { recursive: true, force: true });
    throw error;
  }
}

async function keep(body: ReadableStream<Uint8Array>, path: string): Promise<void> {
  let seen = 0;
  const bound = new Transform({
    transform(part: Uint8Array, _encoding, next) {
      seen += part.length;
      if (seen > MOST_BYTES)
        next(new Refusal(413, `The project is larger than ${MOST_BYTES >> 20} MB. Build it with the command line: npx caravan build.`));
      else next(null, part);
    },
  });
  await pipeline(Readable.fromWeb(body as Parameters<typeof Readable.fromWeb>[0]), bound, createWriteStream(path));
  if (seen === 0) throw new Refusal(422, "Nothing was uploaded. Send a *.caravan file as the request's body.");
}

async function build(folder: string, upload: string): Promise<BuiltZip> {
  const out = join(folder, "out");
  await mkdir(out);
  await runCommand(["build", upload, "--out", out, "--json"], folder);
  const paths = (await readdir(out, { recursive: true, withFileTypes: true }))
    .filter((entry) => entry.isFile() && !entry.name.startsWith(".caravan-"))
    .map((entry) => join(entry.parentPath, entry.name));
  const files = await Promise.all(
    paths
      .sort()
      .map(async (path) => ({ path: path.slice(out.length + 1).replaceAll("\\", "/"), bytes: new Uint8Array(await readFile(path)) })),
  );
  const zip = join(folder, "built.zip");
  await writeFile(zip, writeZip(files));
  const { size } = await stat(zip);
  const stream = createReadStream(zip);
  stream.once("close", () => void rm(folder, { recursive: true, force: true }));
  return { stream: Readable.toWeb(stream) as ReadableStream<Uint8Array>, bytes: size };
}

/** The bundled command, run in a thread: its errors are one line that names the file and the cure. */
async function runCommand(argv: readonly string[], folder: string): Promise<void> {
  const command = join(/* turbopackIgnore: true */ process.cwd(), "../../packages/cli/dist/caravan.mjs");
  const worker = new Worker(command, {
    argv: [...argv],
    stdout: true,
    stderr: true,
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  });
  const said = text(worker.stderr);
  worker.stdout.resume();
  let slow = false;
  const timer = setTimeout(() => {
    slow = true;
    void worker.terminate();
  }, MOST_MS);
  const code = await new Promise<number>((ended) => {
    worker.once("error", () => ended(1));
    worker.once("exit", ended);
  }).finally(() => clearTimeout(timer));
  if (slow) throw new Refusal(504, `The build took longer than ${MOST_MS / 1000} s and was stopped. Build it with the command line.`);
  if (code === 0) return;
  const lines = (await said)
    .replaceAll(`${folder}/`, "")
    .replace(/^caravan: /u, "")
    .trim();
  throw new Refusal(422, lines || "The project needs more memory than a build may take here. Build it with the command line.");
}
