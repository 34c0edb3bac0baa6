/**
 * Recovers the readable parts of a damaged document: what is invalid is left out and listed, down to single decisions about a frame. The
 * rest passes the same checks as any document.
 */
import { t } from "../words";
import { checkDocument } from "./document-check";
import { isFitName } from "./name";
import { emptyProject, type Project } from "./project";
import { ProjectFile, projectToFile, todaysForm, uncheckedProject } from "./project-file";
import { type Damage, type Fields, type LeftOut, type Path, partAround } from "./salvage-parts";
import { unfitParts } from "./unfit-parts";

export interface Salvaged {
  readonly project: Project;
  /** What was left out, in words: `clip "walk"`. */
  readonly lost: readonly string[];
}

/** Leaving out what does not fit can uncover more that does not; a document is not deeper than this. */
const MOST_ROUNDS = 20;

/** Null if nothing worth opening is left. `content` is the file's, parsed as JSON. */
export function salvaged(content: unknown, where: string): Salvaged | null {
  let raw: Fields;
  try {
    raw = structuredClone(todaysForm(content, where));
  } catch {
    return null;
  }
  if (!Array.isArray(raw.sources)) return null;
  const plain = emptyProject(typeof raw.name === "string" && isFitName(raw.name) ? raw.name : t("Project"));
  const lost = new Set<string>();
  try {
    for (let round = 0; round < MOST_ROUNDS; round++) {
      untilItFits(raw, projectToFile(plain), lost, unfitFields);
      const project = structuredClone(uncheckedProject(raw));
      if (!untilItFits(project, plain, lost, unfitWholes)) {
        checkDocument(project, where);
        return { project, lost: [...lost] };
      }
      // A list may have become too short.
      raw = structuredClone(projectToFile(project));
    }
  } catch {
    // What is left is no document.
  }
  return null;
}

/** Changes the document in place. Returns whether it had to. */
function untilItFits(document: object, plain: object, lost: Set<string>, unfitIn: (document: Fields) => readonly Damage[]): boolean {
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const damages = unfitIn(document as Fields);
    if (damages.length === 0) return round > 0;
    leaveOut(document as Fields, damages, plain, lost);
  }
  return true;
}

function unfitFields(raw: Fields): Damage[] {
  const issues = ProjectFile.safeParse(raw).error?.issues ?? [];
  return issues.flatMap((issue): Damage[] =>
    issue.code === "unrecognized_keys"
      ? issue.keys.map((key) => ({ path: [...issue.path, key], isUnknown: true }))
      : [{ path: issue.path, isUnknown: false }],
  );
}

function unfitWholes(document: Fields): Damage[] {
  // Parts found sound are remembered by identity, and the document is changed in place.
  Object.assign(document, structuredClone(document));
  return [...unfitParts(document as Project)].map(({ at }) => ({ path: at, isUnknown: false }));
}

function leaveOut(document: Fields, damages: readonly Damage[], plain: object, lost: Set<string>): void {
  const parts = new Map<string, LeftOut>();
  for (const damage of damages) {
    const part = partAround(document, damage, plain);
    if (part) parts.set(JSON.stringify(part.path), part);
  }
  const counts = new Map<string, { count: number; words: LeftOut["words"] }>();
  for (const { words } of parts.values()) counts.set(words(1), { count: (counts.get(words(1))?.count ?? 0) + 1, words });
  for (const { count, words } of counts.values()) lost.add(words(count));
  // From behind, because leaving out one of a list moves the others.
  for (const { path, instead } of [...parts.values()].sort((a, b) => fromBehind(a.path, b.path))) replace(document, path, instead);
}

/** Deeper ones before their owners. */
function fromBehind(a: Path, b: Path): number {
  for (let k = 0; k < Math.min(a.length, b.length); k++) {
    const [one, other] = [a[k] as PropertyKey, b[k] as PropertyKey];
    if (one !== other) return typeof one === "number" && typeof other === "number" ? other - one : String(one) < String(other) ? 1 : -1;
  }
  return b.length - a.length;
}

/** Sets what is at a path, or takes it out of its list or record. */
function replace(document: Fields, path: Path, instead: unknown): void {
  const owner = path.slice(0, -1).reduce((value: unknown, key) => (value as Fields | undefined)?.[String(key)], document) as
    | Fields
    | undefined;
  const key = path.at(-1);
  if (owner === undefined || owner === null || key === undefined) return;
  if (Array.isArray(owner)) owner.splice(Number(key), 1);
  else if (instead === undefined) delete owner[String(key)];
  else owner[String(key)] = instead;
}
