/**
 * Checks whether a document can be opened: the same checks run before it is stored or written and when it is read.
 *
 * Documents are never changed in place, so a part that passed is remembered by identity and skipped: the cost of a check depends on the
 * change, not on the document.
 */
import type * as z from "zod";
import { t } from "../words";
import { CaravanError } from "./error";
import { clipToFile, FileClip } from "./file-clip";
import { Project } from "./project";
import { isSoundFrame } from "./sound-frame";
import { Frame, Source } from "./source";
import { unfitParts } from "./unfit-parts";

/** Frames, sources, clips and lists that were found sound. */
const sound = new WeakSet<object>();

const SourceHead = Source.omit({ frames: true });
const Rest = Project.omit({ sources: true, clips: true });

/** Throws `damaged-project` with the first problem that would prevent the document from being opened. `where` names it in errors. */
export function checkDocument(project: Project, where: string): void {
  const { sources, clips, ...rest } = project;
  if (isNews(rest)) {
    fit(Rest, rest, [], where);
    for (const part of partsOf(rest)) sound.add(part);
  }
  for (const [k, clip] of clips.entries()) {
    if (sound.has(clip)) continue;
    fit(FileClip, clipToFile(clip), ["clips", k], where);
    sound.add(clip);
  }
  for (const [k, source] of sources.entries()) {
    if (sound.has(source)) continue;
    const { frames, ...head } = source;
    fit(SourceHead, head, ["sources", k], where);
    for (const [n, frame] of frames.entries()) {
      if (sound.has(frame)) continue;
      if (!isSoundFrame(frame)) fit(Frame, frame, ["sources", k, "frames", n], where);
      sound.add(frame);
    }
    sound.add(source);
  }
  checkWhole(project, where);
}

/** Remembers the clips and sources of a document that was read from a file: the file's schema held them against the same checks. */
export function rememberRead({ clips, sources }: Project): void {
  for (const clip of clips) sound.add(clip);
  for (const source of sources) {
    for (const frame of source.frames) sound.add(frame);
    sound.add(source);
  }
}

type Rest = Omit<Project, "sources" | "clips">;

function isNews(rest: Rest): boolean {
  // Text has no identity, but one name is quickly checked.
  return !Project.shape.name.safeParse(rest.name).success || partsOf(rest).some((part) => !sound.has(part));
}

function partsOf(rest: Rest): object[] {
  return Object.values(rest).flatMap((value) => (typeof value === "object" ? [value] : []));
}

function fit(schema: z.ZodType, value: unknown, at: readonly (string | number)[], where: string): void {
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw unfitField(parsed.error, where, at);
}

/** The error for the first field that does not fit. `at` is the path of what was parsed. */
export function unfitField(error: z.ZodError, where: string, at: readonly (string | number)[] = []): CaravanError {
  const first = error.issues[0];
  const path = [...at, ...(first?.path ?? [])].map(String).join(".") || t("the document");
  return new CaravanError(
    "damaged-project",
    where,
    t("The field {path} does not fit: {message}.", { path, message: first?.message ?? "unknown" }),
    t("Repair it by hand or use an undamaged copy."),
    { cause: error },
  );
}

/** Throws `damaged-project` with the first problem that the schema cannot express. */
export function checkWhole(project: Project, where: string): void {
  for (const { what } of unfitParts(project))
    throw new CaravanError("damaged-project", where, what, t("Repair it by hand or use an undamaged copy."));
}
