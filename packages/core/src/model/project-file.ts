/**
 * Converts the project to and from `caravan.json`: the document with times in milliseconds, a format mark and a version.
 *
 * Older versions are migrated here, newer ones refused.
 */
import * as z from "zod";
import { t } from "../words";
import { FileBehaviour } from "./behaviour";
import { checkWhole, rememberRead, unfitField } from "./document-check";
import { CaravanError } from "./error";
import { behavioursFromFile, behavioursToFile } from "./file-behaviour";
import { clipFromFile, clipToFile, FileClip } from "./file-clip";
import { FileSource, sourceFromFile, sourceToFile } from "./file-source";
import { migrated } from "./migrations";
import { Name } from "./name";
import { Project } from "./project";

const PROJECT_FORMAT = "caravan-project";
export const PROJECT_VERSION = 15;

export const ProjectFile = z.strictObject({
  format: z.literal(PROJECT_FORMAT),
  version: z.literal(PROJECT_VERSION),
  ...Project.shape,
  sources: z.array(FileSource),
  clips: z.array(FileClip),
  behaviours: z.record(Name, FileBehaviour).optional(),
});
export type ProjectFile = z.infer<typeof ProjectFile>;

/** The document as written. Unchanged parts are shared with the project. */
export function projectToFile(project: Project): ProjectFile {
  const {
    name,
    pixelsPerUnit,
    sources,
    palettes,
    readings,
    examples,
    marks,
    clips,
    actions,
    parts,
    behaviours,
    stages,
    drives,
    deliveries,
  } = project;
  return {
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    name,
    ...(pixelsPerUnit === undefined ? {} : { pixelsPerUnit }),
    sources: sources.map(sourceToFile),
    ...(palettes === undefined ? {} : { palettes }),
    readings,
    examples,
    marks,
    clips: clips.map(clipToFile),
    actions,
    ...(parts === undefined ? {} : { parts }),
    ...(behaviours === undefined ? {} : { behaviours: behavioursToFile(behaviours) }),
    ...(stages === undefined ? {} : { stages }),
    ...(drives === undefined ? {} : { drives }),
    deliveries,
  };
}

/**
 * Reads what `caravan.json` held, already parsed as JSON. `where` names the file in errors.
 * Throws `not-a-project`, `newer-version` or `damaged-project`, the last with the first field that does not fit.
 */
export function projectFromFile(content: unknown, where: string): Project {
  const parsed = ProjectFile.safeParse(todaysForm(content, where));
  if (!parsed.success) throw unfitField(parsed.error, where);
  const project = documentOf(parsed.data);
  checkWhole(project, where);
  rememberRead(project);
  return project;
}

/** The content of a file of any version in today's form, not yet checked. Throws `not-a-project`, `newer-version`, `damaged-project`. */
export function todaysForm(content: unknown, where: string): Record<string, unknown> {
  if (typeof content !== "object" || content === null || (content as { format?: unknown }).format !== PROJECT_FORMAT)
    throw new CaravanError(
      "not-a-project",
      where,
      t('This is not a Caravan project: "format" is not "{projectFormat}".', { projectFormat: PROJECT_FORMAT }),
      t("Choose a *.caravan file or a folder with a caravan.json."),
    );
  let raw = content as Record<string, unknown>;
  if (typeof raw.version !== "number" || !Number.isInteger(raw.version) || raw.version < 1)
    throw new CaravanError(
      "damaged-project",
      where,
      t("Its version is {version}.", { version: JSON.stringify(raw.version) }),
      t("Use an undamaged copy."),
    );
  if (raw.version > PROJECT_VERSION)
    throw new CaravanError(
      "newer-version",
      where,
      t("It was saved by a newer Caravan (version {version}; this one reads up to {projectVersion}).", {
        version: raw.version,
        projectVersion: PROJECT_VERSION,
      }),
      t("Update Caravan and open it again; nothing was changed."),
    );
  for (let version = raw.version as number; version < PROJECT_VERSION; version++) raw = migrated(raw, version);
  return raw;
}

/**
 * The content of a file of today's version, unchecked: for walking back from a document that does not open to an earlier one that does.
 * Throws anything that invalid data leads to.
 */
export function uncheckedProject(content: unknown): Project {
  const file = content as ProjectFile;
  if (file.version !== PROJECT_VERSION) throw new Error("Only documents of today's version can be walked back.");
  return documentOf(file);
}

function documentOf({ format: _format, version: _version, sources, clips, behaviours, ...rest }: ProjectFile): Project {
  return {
    ...rest,
    sources: sources.map(sourceFromFile),
    clips: clips.map(clipFromFile),
    ...(behaviours === undefined ? {} : { behaviours: behavioursFromFile(behaviours) }),
  };
}
