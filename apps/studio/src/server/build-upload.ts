/**
 * Builds an uploaded `*.caravan` file as the command line does, in a separate process, and returns the files as one ZIP.
 *
 * The upload streams to disk, never into memory as a whole. The number of concurrent uploads, their size, and each build's time and
 * memory are limited; a client that disconnects ends its build. All temporary files are removed in every case; what a killed server left
 * is removed by the next one.
 */
import { spawn } from "node:child_process";
import { createReadStream, createWriteStream, existsSync } from "node:fs";
import { mkdtemp, readdir, readFile, rm, stat } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable, Transform } from "node:stream";
import { text } from "node:stream/consumers";
import { pipeline } from "node:stream/promises";
import { Turns } from "./turns";

/** Largest upload. */
export const MOST_BYTES = 64 * 1024 * 1024;
/** The time limit of a build. */
const MOST_MS = 120_000;
/** The memory limit of a build's process. */
const MOST_MEMORY = 1536 * 1024 * 1024; // bytes
/** How often a build's memory is checked. */
const LOOK = 200; // ms
const AT_ONCE = 2;
const MOST_WAITING = 16;
const turns = new Turns(AT_ONCE, MOST_WAITING);

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

/** Uploads that are received, waiting or being built. Counted before their first byte is stored, so that the disk is bounded too. */
let inside = 0;

/**
 * Throws `Refusal`: 413 too large, 422 not buildable, with the command's own message, 503 too many at once, 504 too slow. `signal` is
 * aborted when the client disconnects; then the build ends, and nobody receives what this throws.
 */
export async function buildUpload(body: ReadableStream<Uint8Array>, signal: AbortSignal): Promise<BuiltZip> {
  if (inside >= AT_ONCE + MOST_WAITING) throw tooMany();
  inside++;
  let folder: string | null = null;
  try {
    await swept;
    folder = await mkdtemp(join(tmpdir(), `${PREFIX}${process.pid}-`));
    const upload = join(folder, "project.caravan");
    await keep(body, upload, signal);
    const path = folder;
    const built = await turns.take(() => build(path, upload, signal));
    if (!built) throw tooMany();
    return built;
  } catch (error) {
    if (folder) await rm(folder, { recursive: true, force: true });
    throw error;
  } finally {
    inside--;
  }
}

function tooMany(): Refusal {
  return new Refusal(503, "Too many builds are waiting already. Try again in a minute.");
}

async function keep(body: ReadableStream<Uint8Array>, path: string, signal: AbortSignal): Promise<void> {
  let seen = 0;
  const bound = new Transform({
    transform(part: Uint8Array, _encoding, next) {
      seen += part.length;
      if (seen > MOST_BYTES)
        next(new Refusal(413, `The project is larger than ${MOST_BYTES >> 20} MB. Build it with the command line: npx caravan build.`));
      else next(null, part);
    },
  });
  await pipeline(Readable.fromWeb(body as Parameters<typeof Readable.fromWeb>[0]), bound, createWriteStream(path), { signal });
  if (seen === 0) throw new Refusal(422, "Nothing was uploaded. Send a *.caravan file as the request's body.");
}

async function build(folder: string, upload: string, signal: AbortSignal): Promise<BuiltZip> {
  signal.throwIfAborted();
  const zip = join(folder, "built.zip");
  await runCommand(["build", upload, "--out", join(folder, "out"), "--zip", zip, "--json"], folder, signal);
  const { size } = await stat(zip);
  const stream = createReadStream(zip);
  stream.once("close", () => void rm(folder, { recursive: true, force: true }).catch(() => {}));
  return { stream: Readable.toWeb(stream) as ReadableStream<Uint8Array>, bytes: size };
}

/** The bundled command, run in a process: its errors are one line that names the file and the cure. */
async function runCommand(argv: readonly string[], folder: string, signal: AbortSignal): Promise<void> {
  const command = join(/* turbopackIgnore: true */ process.cwd(), "../../packages/cli/dist/caravan.mjs");
  const child = spawn(process.execPath, ["--max-old-space-size=1024", command, ...argv], {
    stdio: ["ignore", "ignore", "pipe"],
    // What came over the wire is not kept.
    env: { ...process.env, CARAVAN_CACHE: "" },
  });
  const said = text(child.stderr);
  let ended: "slow" | "large" | null = null;
  const end = (why: typeof ended) => {
    ended ??= why;
    child.kill("SIGKILL");
  };
  const leave = () => end(null);
  signal.addEventListener("abort", leave, { once: true });
  const timer = setTimeout(() => end("slow"), MOST_MS);
  const looking = setInterval(async () => {
    if ((await memoryOf(child.pid)) > MOST_MEMORY) end("large");
  }, LOOK);
  const code = await new Promise<number | null>((answer) => {
    child.once("error", () => answer(1));
    child.once("close", answer);
  }).finally(() => {
    clearTimeout(timer);
    clearInterval(looking);
    signal.removeEventListener("abort", leave);
  });
  signal.throwIfAborted();
  if (ended === "slow")
    throw new Refusal(504, `The build took longer than ${MOST_MS / 1000} s and was stopped. Build it with the command line.`);
  if (code === 0) return;
  const lines = (await said)
    .replaceAll(`${folder}/`, "")
    .replace(/^caravan: /u, "")
    .trim();
  // A process that ran out of memory prints pages about it.
  const short = ended === null && lines.length < 2000 ? lines : "";
  throw new Refusal(422, short || "The project needs more memory than a build may take here. Build it with the command line.");
}

/** A process's memory use in bytes; 0 if the system does not report it. */
async function memoryOf(pid: number | undefined): Promise<number> {
  try {
    const status = await readFile(`/proc/${pid}/status`, "utf8");
    return Number(/^VmRSS:\s+(\d+) kB/m.exec(status)?.[1] ?? 0) * 1024;
  } catch {
    return 0;
  }
}

const PREFIX = "caravan-build-";

/** Folders of servers that no longer run, deleted once before the first build. */
const swept: Promise<void> = sweep().catch(() => {});

async function sweep(): Promise<void> {
  for (const name of await readdir(tmpdir())) {
    const pid = new RegExp(`^${PREFIX}(\\d+)-`).exec(name)?.[1];
    // Folders of earlier versions have no number of a process.
    const left = pid === undefined ? new RegExp(`^${PREFIX}[^-]{6}$`).test(name) : !isRunning(Number(pid));
    if (left) await rm(join(tmpdir(), name), { recursive: true, force: true });
  }
}

function isRunning(pid: number): boolean {
  if (pid === process.pid) return true;
  if (existsSync("/proc/self")) return existsSync(`/proc/${pid}`);
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as { code?: string }).code !== "ESRCH";
  }
}
