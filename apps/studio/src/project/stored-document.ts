/**
 * Stores a document as a few parts, each as text, so that a save writes only the parts that changed. Text, because the browser clones
 * objects with thousands of frames four times slower than it copies their text, and does so on the main thread.
 */
import { emptyProject, type Project, type ProjectFile, projectToFile } from "@caravan/core/model";
import { type StoredPart, storage } from "./storage";

const PARTS = ["sources", "clips", "rest"] as const;
type Part = (typeof PARTS)[number];

/** Whether a part of two documents is the same; edits share unchanged parts, so identity is enough. */
function same(part: Part, a: Project, b: Project): boolean {
  if (part !== "rest") return a[part] === b[part];
  const { sources: _sources, clips: _clips, ...rest } = a;
  // A field that only one of them has counts too.
  return (Object.keys({ ...b, ...rest }) as (keyof Project)[]).every((key) => key === "sources" || key === "clips" || a[key] === b[key]);
}

/** A part of a document as text. "rest" is everything but the other parts. */
function partText(file: ProjectFile, part: Part): string {
  if (part !== "rest") return JSON.stringify(file[part]);
  const { sources: _, clips: __, ...rest } = file;
  return JSON.stringify(rest);
}

/** Writes the document, except the parts already in `known`, the stored document. */
export async function writeDocument(id: string, project: Project, known: Project | null): Promise<void> {
  const changed = PARTS.filter((part) => known === null || !same(part, project, known));
  if (changed.length === 0) return;
  const file = projectToFile(project);
  await storage.documents.bulkPut(changed.map((part) => ({ project: id, part, text: partText(file, part) })));
}

/** The parts that storage holds, as text. */
export async function storedParts(id: string): Promise<StoredPart[]> {
  const parts = await storage.documents.bulkGet(PARTS.map((part) => [id, part] as [string, string]));
  return parts.filter((part) => part !== undefined);
}

/** The document as `projectFromFile` reads it; undefined if storage does not hold it. Throws if a part is no JSON. */
export async function readDocument(id: string): Promise<unknown> {
  const parts = new Map((await storedParts(id)).map((each) => [each.part, each]));
  const [sources, clips, rest] = PARTS.map((part) => parts.get(part));
  if (!sources || !clips || !rest) return undefined;
  return { ...JSON.parse(rest.text), sources: JSON.parse(sources.text), clips: JSON.parse(clips.text) };
}

/**
 * The parts of the document that are readable JSON, the rest as in a new project; `lost` lists the unreadable ones. Undefined if the
 * sources are unreadable: without them nothing is left of a project.
 */
export async function readableDocument(id: string, name: string): Promise<{ content: unknown; lost: string[] } | undefined> {
  const lost: string[] = [];
  const parts = new Map((await storedParts(id)).map(({ part, text }) => [part, text]));
  const read = (part: Part, words: string): object | undefined => {
    try {
      return JSON.parse(parts.get(part) ?? "");
    } catch {
      lost.push(words);
      return undefined;
    }
  };
  const sources = read("sources", "its sources");
  if (sources === undefined) return undefined;
  const [clips, rest] = [read("clips", "its clips"), read("rest", "all that is neither source nor clip")];
  // What can be read may be of an older version, which nothing of today's belongs into.
  return { content: { ...(rest ?? projectToFile(emptyProject(name))), sources, clips: clips ?? [] }, lost };
}

export async function deleteDocument(id: string): Promise<void> {
  await storage.documents.bulkDelete(PARTS.map((part) => [id, part] as [string, string]));
}
