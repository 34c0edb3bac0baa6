/**
 * Recovers the readable parts of a damaged document: invalid items are omitted and listed, down to single frames. The rest passes the same
 * checks as any document.
 */
import type * as z from "zod";
import { t } from "../words";
import { counted } from "./counted";
import { FIELD_OF_SHAPE, MARK_SHAPES } from "./marks";
import { isFitName } from "./name";
import { emptyProject, type Project } from "./project";
import { ProjectFile, projectFromFile, projectToFile, todaysForm } from "./project-file";

export interface Salvaged {
  readonly project: Project;
  /** What was left out, in words: `clip "walk"`. */
  readonly lost: readonly string[];
}

/** What one of a list is called. */
const WORDS: Readonly<Record<string, string>> = {
  sources: "source",
  clips: "clip",
  actions: "action",
  marks: "kind of marks",
  parts: "part",
  palettes: "palette",
  readings: "reading",
  examples: "example",
  stages: "stage",
  drives: "drive",
  deliveries: "delivery",
};

type Fields = Record<string, unknown>;

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
  const plain = projectToFile(emptyProject(typeof raw.name === "string" && isFitName(raw.name) ? raw.name : "Project")) as Fields;
  const lost = new Set<string>();
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const { error } = ProjectFile.safeParse(raw);
    if (!error) break;
    leaveOut(raw, error.issues, plain, lost);
  }
  leaveOutWhatHangs(raw, lost);
  try {
    return { project: projectFromFile(raw, where), lost: [...lost] };
  } catch {
    return null;
  }
}

function leaveOut(raw: Fields, issues: readonly z.core.$ZodIssue[], plain: Fields, lost: Set<string>): void {
  const things = new Map<string, Set<number>>();
  const frames = new Map<number, Set<number>>();
  for (const issue of issues) {
    const [field, at, inner, place] = issue.path;
    if (typeof field !== "string") {
      for (const key of issue.code === "unrecognized_keys" ? issue.keys : []) drop(raw, key, plain, lost);
    } else if (field === "sources" && typeof at === "number" && inner === "frames" && typeof place === "number")
      frames.set(at, (frames.get(at) ?? new Set()).add(place));
    else if (typeof at === "number" && Array.isArray(raw[field])) things.set(field, (things.get(field) ?? new Set()).add(at));
    else if (field === "behaviours" && typeof at === "string") {
      delete (raw.behaviours as Fields)[at];
      lost.add(t('behaviour "{at}"', { at }));
    } else drop(raw, field, plain, lost);
  }
  for (const [at, places] of frames) {
    const source = (raw.sources as Fields[])[at] as Fields;
    source.frames = (source.frames as unknown[]).filter((_, k) => !places.has(k));
    lost.add(t("{frames} of {name}", { frames: counted(places.size, "frame"), name: nameOf(source) }));
  }
  for (const [field, places] of things) {
    const list = raw[field] as unknown[];
    for (const at of places) lost.add(`${WORDS[field] ?? field} ${nameOf(list[at])}`);
    raw[field] = list.filter((_, k) => !places.has(k));
  }
}

/** A field that is invalid as a whole gets a new project's value. */
function drop(raw: Fields, field: string, plain: Fields, lost: Set<string>): void {
  lost.add(t("its {field}", { field }));
  if (Object.hasOwn(plain, field)) raw[field] = structuredClone(plain[field]);
  else delete raw[field];
}

/** References to missing things, and duplicate names. Every field is valid by now. */
function leaveOutWhatHangs(raw: Fields, lost: Set<string>): void {
  for (const [field, word] of Object.entries(WORDS)) {
    if (!Array.isArray(raw[field])) continue;
    const [ids, names] = [new Set<unknown>(), new Set<unknown>()];
    raw[field] = (raw[field] as Fields[]).filter((thing) => {
      const isTwin = names.has(thing.name) || (thing.id !== undefined && ids.has(thing.id));
      ids.add(thing.id);
      names.add(thing.name);
      if (isTwin) lost.add(t("a second {word} {name}", { word, name: nameOf(thing) }));
      return !isTwin;
    });
  }
  const { clips, actions, sources, marks } = raw as ProjectFile;
  const there = new Set(clips.map(({ name }) => name));
  for (const { name, facings } of actions)
    for (const [facing, petal] of Object.entries(facings))
      if (!there.has(petal.clip)) {
        delete (facings as Fields)[facing];
        lost.add(t('the facing {facing} of action "{name}"', { facing, name }));
      }
  for (const clip of clips)
    if (clip.loopFrom > 0 && clip.loopFrom >= clip.steps.length) {
      clip.loopFrom = 0;
      lost.add(t('the lead-in of clip "{name}"', { name: clip.name }));
    }
  for (const shape of MARK_SHAPES) {
    const kinds = new Set<string>(marks.filter((kind) => kind.shape === shape).map(({ name }) => name));
    for (const source of sources)
      for (const frame of source.frames) {
        const found = frame.marks?.[FIELD_OF_SHAPE[shape]] as Fields | undefined;
        for (const name of Object.keys(found ?? {}))
          if (!kinds.has(name)) {
            delete (found as Fields)[name];
            lost.add(t("the {name} on frames of {source}", { name, source: nameOf(source) }));
          }
      }
  }
}

function nameOf(thing: unknown): string {
  const name = typeof thing === "object" && thing !== null ? (thing as Fields).name : undefined;
  return typeof name === "string" ? `"${name}"` : t("without a name");
}
