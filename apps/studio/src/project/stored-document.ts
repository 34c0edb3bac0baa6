/**
 * Stores a document as a few parts, each as text, so that a save writes only the parts that changed. Text, because the browser clones
 * objects with thousands of frames four times slower than it copies their text, and does so on the main thread.
 */
import { emptyProject, type Project, type ProjectFile, projectToFile, readableJson } from "@caravan/core/model";
import { t } from "../ui/words";
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

/** Parts of a document that agree with what is stored, at least; one may be damaged. */
const FEWEST_AGREEING = 2;

/** Whether the stored parts are those of `project`, but for one that may be damaged. */
export function agrees(stored: readonly StoredPart[], project: Project): boolean {
  const file = projectToFile(project);
  return stored.filter(({ part, text }) => text === partText(file, part as Part)).length >= FEWEST_AGREEING;
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
 * The document as far as it is readable JSON, the rest as in a new project; `lost` lists what is not. Undefined if nothing of the sources is
 * readable: without them nothing is left of a project.
 */
export async function readableDocument(id: string, name: string): Promise<{ content: unknown; lost: string[] } | undefined> {
  const lost: string[] = [];
  const parts = new Map((await storedParts(id)).map(({ part, text }) => [part, text]));
  const read = (part: Part, whole: string, rest: string): unknown => {
    const readable = readableJson(parts.get(part) ?? "");
    if (!readable?.isWhole) lost.push(readable ? rest : whole);
    return readable?.value;
  };
  const sources = read("sources", t("its sources"), t("what follows a damaged place in its sources"));
  if (sources === undefined) return undefined;
  const clips = read("clips", t("its clips"), t("what follows a damaged place in its clips"));
  const rest = read("rest", t("all that is neither source nor clip"), t("what follows a damaged place in what is neither source nor clip"));
  // What can be read may be of an older version, which nothing of today's belongs into.
  return { content: { ...((rest as object | undefined) ?? projectToFile(emptyProject(name))), sources, clips: clips ?? [] }, lost };
}

export async function deleteDocument(id: string): Promise<void> {
  await storage.documents.bulkDelete(PARTS.map((part) => [id, part] as [string, string]));
}
