import { existsSync } from "node:fs";
import { basename, extname } from "node:path";
import { artFrom, asSeen, looksOf } from "@caravan/core/art";
import { suggestGrids } from "@caravan/core/cut";
import { type Arrival, sourceToBe, takeIn } from "@caravan/core/edit";
import {
  type Choices,
  describedBy,
  fileOf,
  MOST_TRIED,
  onlyCameAlong,
  type Proposal,
  proposalsFor,
  proposedActions,
  type SeenGrid,
  sheetsOf,
  type TakenDescription,
  withoutLayers,
  withoutOthersRecords,
} from "@caravan/core/intake";
import { understand } from "@caravan/core/metadata";
import { allPictures, CaravanError, counted, emptyProject, FACINGS, type Facing } from "@caravan/core/model";
import { type Coverage, coverageOf, sheetCoverageOf } from "@caravan/core/raster";
import { type Command, InvalidArgumentError, Option } from "commander";
import { isProjectFile } from "../files";
import { givenPaths } from "../given-paths";
import { note, tell, wrongCall } from "../output";
import { pngCodec } from "../png";
import { type TakenFiles, takenFiles } from "../read-art";
import { noteGuessed } from "../text-file";
import { writeProject } from "../written-project";

const SHEETS = ["later", "whole", "cells", "rows", "facings"] as const;

export interface NewOptions {
  readonly out: string;
  readonly name?: string;
  readonly sheets: (typeof SHEETS)[number];
  readonly first: Facing;
  readonly counterClockwise: boolean;
  readonly clear: boolean;
  readonly clips: boolean;
  readonly actions: boolean;
  readonly replace: boolean;
  readonly json: boolean;
}

export function addNew(program: Command): void {
  program
    .command("new")
    .summary("make a project from art")
    .description(
      "Makes a project from pictures, numbered stills, animations, layered art and metadata files, as the studio proposes for a drop.",
    )
    .argument("<art...>", "files or folders", givenPaths)
    .requiredOption("--out <project>", "a folder, or a file that ends with .caravan")
    .option("--name <name>", "the project's name; else that of --out")
    .addOption(
      new Option("--sheets <what>", "how to use sheets without a description, by their suggested grid")
        .choices([...SHEETS])
        .default("later"),
    )
    .option("--first <facing>", `facing of the first row or number: ${FACINGS.join(" ")}`, facing, "s")
    .option("--counter-clockwise", "the others follow counter-clockwise", false)
    .option("--no-clear", "keep opaque backgrounds")
    .option("--no-clips", "make no clips")
    .option("--no-actions", "make no actions")
    .option("--replace", "replace files in the way that Caravan did not write", false)
    .option("--json", "print one JSON document", false)
    .action(makeNew);
}

function facing(text: string): Facing {
  const found = FACINGS.find((each) => each === text.toLowerCase());
  if (!found) throw new InvalidArgumentError(`Write one of ${FACINGS.join(" ")}.`);
  return found;
}

async function makeNew(paths: string[], options: NewOptions): Promise<void> {
  const told = await newProject(paths, options);
  tell(options.json, told, () => newInWords(told));
}

type ToldNew = Awaited<ReturnType<typeof newProject>>;

export function newInWords({ project, sources, clips, actions }: ToldNew): string {
  return [
    ...sources.map((source) => `${source.name}: ${source.cut === null ? "not cut yet" : counted(source.frames, "frame")}`),
    ...(clips.length > 0 ? [`clips: ${clips.map((clip) => clip.name).join(", ")}`] : []),
    ...actions.map((action) => `action ${action.name}: ${Object.keys(action.facings).length} of ${action.ways} facings`),
    `written to ${project}`,
  ].join("\n");
}

/** Makes the project and writes it. Throws `not-ours`, `nothing-picked`, and what reading art throws. */
export async function newProject(paths: readonly string[], options: NewOptions) {
  const { out, replace } = options;
  if (out.trim() === "") wrongCall("--out does not name a project. Give a folder, or a file such as camp.caravan.");
  if (isProjectFile(out) && existsSync(out) && !replace)
    throw new CaravanError("not-ours", out, "There is already such a file.", "Add --replace, or give another name.");
  const taken = await takenFiles([...paths]);
  const { found, failed } = described(taken);
  for (const message of [...taken.failed, ...failed]) note(message);
  const proposals = proposalsFor(taken.items, found, { grids: gridsOf(taken, found) });
  if (proposals.length === 0)
    throw new CaravanError(
      "nothing-picked",
      paths.join(", "),
      "There is no art in it that can be read.",
      "Give pictures, or folders with pictures.",
    );
  const choicesOf = ({ usual, kind, cuts }: Proposal): Choices => ({
    ...usual,
    clear: options.clear,
    clips: options.clips,
    cut: kind === "sheet" && usual.cut === "later" && cuts?.some(([cut]) => cut === options.sheets) ? options.sheets : usual.cut,
  });
  const order = { first: options.first, clockwise: !options.counterClockwise };
  const actions = options.actions ? proposedActions(proposals, choicesOf, order).filter((each) => each.usual) : [];
  for (const { name, notes } of proposals) for (const each of notes) note(`${name}: ${each}`);
  const name = options.name ?? basename(out, extname(out));
  const project = takeIn(
    emptyProject(name),
    proposals.flatMap((each) => each.arrivals(choicesOf(each)).map((arrival) => withCoverages(arrival, taken))),
    actions.map(({ action }) => action),
  );
  const used = new Set(project.sources.flatMap(allPictures).map(({ sha256 }) => sha256));
  const pictures = new Map([...taken.pictures].filter(([sha256]) => used.has(sha256)));
  const texts = taken.texts.map(({ text }) => text);
  writeProject(out, project, pictures, `new ${name}`, replace, texts);
  return {
    project: out,
    sources: project.sources.map((source) => ({
      name: source.name,
      pictures: source.pictures.length,
      ...(source.layers ? { layers: source.layers.map(({ name, blend }) => ({ name, blend })) } : {}),
      cut: source.cut?.by ?? null,
      frames: source.frames.length,
    })),
    clips: project.clips.map((clip) => ({ name: clip.name, steps: clip.steps.length })),
    actions: project.actions.map((action) => ({ name: action.name, ways: action.ways, facings: action.facings })),
    notes: proposals.flatMap((each) => each.notes.map((text) => `${each.name}: ${text}`)),
    failed: [...taken.failed, ...failed],
  };
}

/** Frames are found on all layers together, each with its background cleared. */
function withCoverages(arrival: Arrival, { pictures }: TakenFiles): Arrival {
  if (!arrival.layers) return arrival;
  const decoded = new Map(
    [arrival, ...arrival.layers].flatMap((each) =>
      each.pictures.map(({ sha256 }) => [sha256, pngCodec().decode(pictures.get(sha256) as Uint8Array, arrival.name)] as const),
    ),
  );
  const art = artFrom(decoded, { sources: [] });
  return { ...arrival, coverages: looksOf(sourceToBe(arrival)).map((look) => sheetCoverageOf(art.picture(look))) };
}

/** Matches metadata files to the pictures that came with them; those that describe none are noted. */
function described({ items, texts }: TakenFiles): { found: TakenDescription[]; failed: string[] } {
  const stills = new Map(items.flatMap(({ path, art }) => (art.kind === "still" ? [[path, art.picture.coverage] as const] : [])));
  const found: TakenDescription[] = [];
  const failed: string[] = [];
  const aside: string[] = [];
  const art = items.map(({ path }) => path);
  const isMany = texts.length > MOST_TRIED;
  for (const { path, text, guessed } of texts) {
    const isAside = onlyCameAlong(path, text, art);
    if (isMany && isAside) {
      aside.push(path);
      continue;
    }
    const pictures = describedBy(path, text, [...stills.keys()]);
    const whys: string[] = [];
    const all = pictures.flatMap((picture): TakenDescription[] => {
      try {
        const seen = { picture: fileOf(picture), coverage: stills.get(picture) as Coverage };
        const understood = understand(text, seen, fileOf(path), []);
        return understood.frames.length > 0 ? [{ path, of: { picture }, understood, text }] : [];
      } catch (error) {
        if (!(error instanceof CaravanError)) throw error;
        whys.push(error.message);
        return [];
      }
    });
    const own = withoutLayers(all);
    if (own.length > 0 && guessed !== null) noteGuessed(path, guessed);
    if (own.length === 0 && isAside) aside.push(path);
    else if (own.length === 0) failed.push(whys[0] ?? `${path}: It describes none of the pictures that came with it, and is left out.`);
    found.push(...own.map((each) => ({ ...each, understood: withoutOthersRecords(each.understood, pictures) })));
  }
  if (aside.length > 0) failed.push(`Left out, being neither pictures nor metadata: ${aside.join(", ")}.`);
  return { found, failed };
}

/** The grids that sheets suggest, where their grounds are seen through. */
function gridsOf({ items, pictures }: TakenFiles, found: readonly TakenDescription[]): Map<string, SeenGrid> {
  const grids = new Map<string, SeenGrid>();
  for (const { path, art } of sheetsOf(items, found)) {
    if (art.kind !== "still") continue;
    const { sha256, ground } = art.picture;
    const coverage = ground
      ? coverageOf(asSeen(pngCodec().decode(pictures.get(sha256) as Uint8Array, path), { clearing: ground.clearing }))
      : art.picture.coverage;
    const [suggestion] = suggestGrids(coverage, 1, art.picture.coverage);
    if (suggestion) grids.set(path, { suggestion, coverage });
  }
  return grids;
}
