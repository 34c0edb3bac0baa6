/**
 * Notices changes of a project's files. The system reports them at once, but not everywhere: none in folders shared with a container, a virtual
 * machine or another computer, none of a link's target, and the number of folders that can be watched is limited.
 * So times and sizes of the files are looked at as well.
 */
import { type FSWatcher, readdirSync, realpathSync, statSync, watch as watchFiles } from "node:fs";
import { basename, dirname, join, relative, resolve, sep } from "node:path";
import { PROJECT_FILE } from "@caravan/core/bundle";
import { isArtFile, isPassedBy } from "@caravan/core/intake";

/** How often the files are looked at, at most. */
const LOOK = 500; // ms
/** Looking takes at most one part in so many of the time, however many files there are. */
const SHARE = 20;
/** How long the system is not asked again after it refused to report changes. */
const REFUSED = 10_000; // ms

export interface Changes {
  /** Takes the files as they are now for known. Of a folder made anew, the system is asked again. */
  renew(): void;
  close(): void;
}

/** Calls back when a project's folder with all in it, or a project's only file, is changed, gone or there again; not for the deliveries in it. */
export function changesOf(path: string, out: string, onChange: () => void): Changes {
  let watcher: FSWatcher | null = null;
  let watched = "";
  let refused = -REFUSED;
  let known = stampOf(path, out);
  let timer: NodeJS.Timeout;
  const unwatch = () => {
    watcher?.close();
    watcher = null;
  };
  const refuse = () => {
    unwatch();
    refused = performance.now();
  };
  const watchAgain = () => {
    if (performance.now() - refused < REFUSED) return;
    try {
      const folder = folderOf(path) ?? dirname(resolve(path));
      const { dev, ino } = statSync(folder);
      // Of a whole game's folder asking takes a second.
      if (watcher && watched === `${dev} ${ino}`) return;
      unwatch();
      watcher = watching(path, out, onChange);
      watched = `${dev} ${ino}`;
      watcher.on("error", refuse);
    } catch {
      refuse();
    }
  };
  const look = () => {
    const start = performance.now();
    const now = stampOf(path, out);
    if (now !== known) {
      known = now;
      onChange();
    } else if (now !== null && !watcher) watchAgain();
    timer = setTimeout(look, Math.max(LOOK, (performance.now() - start) * SHARE));
  };
  timer = setTimeout(look, LOOK);
  return {
    renew: () => {
      known = stampOf(path, out);
      watchAgain();
    },
    close: () => {
      clearTimeout(timer);
      unwatch();
    },
  };
}

/** The folder that a project is, with all files in it; null if it is a single file. Throws if there is nothing. */
function folderOf(path: string): string | null {
  if (statSync(path).isDirectory()) return path;
  return basename(path) === PROJECT_FILE ? dirname(path) : null;
}

/** A text that changes with the files, as far as their times, sizes and places tell; null if there is nothing. */
function stampOf(path: string, out: string): string | null {
  try {
    const folder = folderOf(path);
    return folder === null ? fileStamp(path) : stampsIn(folder, "", isOfProject(folder, out), new Set()).join("\n");
  } catch {
    return null;
  }
}

/** Of what a build reads only: a project's folder may be a whole game's. */
function stampsIn(folder: string, within: string, isOf: (name: string) => boolean, seen: Set<string>): string[] {
  const real = realpathSync(folder);
  // A link to a folder around it.
  if (seen.has(real)) return [];
  seen.add(real);
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const name = within === "" ? entry.name : within + sep + entry.name;
    if (!isOf(name)) return [];
    const path = join(folder, entry.name);
    try {
      const isFolder = entry.isDirectory() || (entry.isSymbolicLink() && statSync(path).isDirectory());
      if (isFolder) return stampsIn(path, name, isOf, seen);
      return isArtFile(name) || name === PROJECT_FILE ? [`${name} ${fileStamp(path)}`] : [];
    } catch {
      // Gone meanwhile, a link to nothing, or not ours to read.
      return [name];
    }
  });
}

function fileStamp(path: string): string {
  const { ino, size, mtimeMs } = statSync(path);
  return `${ino} ${size} ${mtimeMs}`;
}

/** Which names in a project's folder are of the project: not the deliveries, nor files of other programs or that are being written (`.caravan-…`). */
function isOfProject(folder: string, out: string): (name: string) => boolean {
  const delivered = relative(resolve(folder), resolve(out));
  const isDelivered = (name: string) =>
    delivered !== "" && !delivered.startsWith("..") && (name === delivered || name.startsWith(delivered + sep));
  return (name) => !isDelivered(name) && !isPassedBy(name.split(sep).join("/"));
}

function watching(path: string, out: string, onChange: () => void): FSWatcher {
  const folder = folderOf(path);
  if (folder === null)
    return watchFiles(dirname(resolve(path)), (_event, name) => (name === null || name === basename(path)) && onChange());
  const isOf = isOfProject(folder, out);
  return watchFiles(folder, { recursive: true }, (_event, name) => {
    if (name === null || isOf(name)) onChange();
  });
}
