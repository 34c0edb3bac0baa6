/** Files that people drop or choose: pictures become sources, `*.caravan` files become projects. */
import { type ArrivedPicture, addSources, counted } from "@caravan/core/edit";
import { CaravanError, naturalOrder } from "@caravan/core/model";
import { create } from "zustand";
import { say } from "../ui/notices";
import { run } from "../workers/client";
import { currentProject, edit, useOpenProject } from "./open-project";
import { keepPicture } from "./pictures";
import { importBundle, openProject, startProject } from "./projects";
import { chooseSource, go } from "./view";

/** Shown while files are being read. */
export interface Arrival {
  readonly done: number;
  readonly total: number;
  readonly cancel: () => void;
}

export const useArrival = create<{ readonly arrival: Arrival | null }>(() => ({ arrival: null }));

/** Files that could not be taken in, each with its reason; they stay on the screen until they are dismissed or tried again. */
export interface FailedFile {
  readonly file: File;
  readonly error: CaravanError;
}

export const useFailedFiles = create<{ readonly failed: readonly FailedFile[] }>(() => ({ failed: [] }));

/** Takes files in and goes to where work on them begins: a lone sheet is cut, several are looked over. */
export async function takeInAndGo(files: readonly File[]): Promise<void> {
  const before = useFailedFiles.getState().failed.length;
  const ids = await takeIn(files).catch((error): string[] => {
    say({ tone: "trouble", text: error instanceof Error ? error.message : String(error) });
    return [];
  });
  const failed = useFailedFiles.getState().failed.slice(before);
  if (failed[0]) {
    const text = failed.length === 1 ? failed[0].error.message : `${failed.length} files did not come in.`;
    say({ tone: "trouble", text, action: { label: "Show at Sources", run: () => go("sources") } });
  }
  if (ids[0] === undefined) return;
  chooseSource(ids[0]);
  go(ids.length === 1 ? "frames" : "sources");
}

/** Takes files in. Good ones go in even if others fail; returns the ids of the new sources, in order. */
export async function takeIn(files: readonly File[]): Promise<string[]> {
  const bundles = files.filter((file) => file.name.toLowerCase().endsWith(".caravan"));
  for (const file of bundles) await openFile(file);
  // Systems hand over dropped files in any order; 2 comes before 10.
  const pictures = files.filter((file) => !bundles.includes(file)).sort((a, b) => naturalOrder(a.name, b.name));
  return pictures.length > 0 ? takeInPictures(pictures) : [];
}

async function openFile(file: File): Promise<void> {
  try {
    await openProject(await importBundle(file, file.name));
    say({ tone: "good", text: `Opened ${file.name} as a project of its own.` });
  } catch (error) {
    noteFailed([{ file, error: asCaravanError(error, file.name) }]);
  }
}

async function takeInPictures(files: readonly File[]): Promise<string[]> {
  const cancelling = new AbortController();
  const cancel = () => cancelling.abort();
  const failed: FailedFile[] = [];
  let done = 0;
  useArrival.setState({ arrival: { done, total: files.length, cancel } });
  const read = await Promise.all(
    files.map(async (file): Promise<(ArrivedPicture & { stored: boolean }) | null> => {
      try {
        const picture = await run("readPicture", { name: file.name, blob: file }, { signal: cancelling.signal });
        // Kept from memory, so that a file changed on disk meanwhile cannot slip under its hash.
        const stored = await keepPicture(picture, new Blob([await file.arrayBuffer()], { type: "image/png" }));
        return { fileName: file.name, sha256: picture.sha256, width: picture.width, height: picture.height, stored };
      } catch (error) {
        const problem = asCaravanError(error, file.name);
        if (problem.code !== "cancelled") failed.push({ file, error: problem });
        return null;
      } finally {
        done++;
        useArrival.setState(({ arrival }) => ({ arrival: arrival && { ...arrival, done } }));
      }
    }),
  );
  useArrival.setState({ arrival: null });
  noteFailed(failed);
  const arrived = read.filter((picture) => picture !== null);
  if (arrived.some((picture) => !picture.stored))
    useOpenProject.setState({ saving: { kind: "failed", full: true, reason: "This browser has no more room for the pictures." } });
  return arrived.length > 0 ? addArrived(arrived) : [];
}

async function addArrived(arrived: readonly ArrivedPicture[]): Promise<string[]> {
  // Someone who drops art of their own onto the untouched demo wants to work on it, not on the demo.
  if (useOpenProject.getState().demo) {
    const demo = useOpenProject.getState().id as string;
    await startProject(arrived[0]?.fileName.replace(/\.[^.]*$/, ""));
    say({
      tone: "plain",
      text: "Your art is in a project of its own.",
      action: { label: "Back to the demo", run: () => void openProject(demo) },
    });
  }
  const known = new Set(currentProject().sources.map((source) => source.id));
  const error = edit(addSources, arrived);
  if (error) say({ tone: "trouble", text: error.message });
  const added = currentProject().sources.filter((source) => !known.has(source.id));
  if (added.length > 1) say({ tone: "good", text: `${counted(added.length, "picture")} came in.` });
  return added.map((source) => source.id);
}

function noteFailed(failed: readonly FailedFile[]): void {
  if (failed.length > 0) useFailedFiles.setState((state) => ({ failed: [...state.failed, ...failed] }));
}

function asCaravanError(error: unknown, where: string): CaravanError {
  if (error instanceof CaravanError) return error;
  return new CaravanError(
    "damaged-picture",
    where,
    `It could not be read: ${error instanceof Error ? error.message : String(error)}.`,
    "Try again.",
    { cause: error },
  );
}
