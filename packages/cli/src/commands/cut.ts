import { basename, extname } from "node:path";
import { asSeen } from "@caravan/core/art";
import { type NamedFile, textFromUtf8 } from "@caravan/core/codec";
import { cutSheet, type FindingCut, gridOf, suggestGrids, suggestOutlines } from "@caravan/core/cut";
import { framesAndClips } from "@caravan/core/intake";
import { type Correction, isMeaning, layersIn, MEANINGS, readClips, readFrames, recogniseAs } from "@caravan/core/metadata";
import { CaravanError, type Clearing, counted, fitFileName, type GridCut, type Reading } from "@caravan/core/model";
import { type Coverage, clearGround, coverageOf, findGround, type Pixels, sheetCoverageOf } from "@caravan/core/raster";
import { type Command, Option } from "commander";
import { readFile } from "../files";
import { type FrameFile, frameFiles, writeFrames } from "../frame-files";
import { colourOrAuto, offset, pair, range, spacing, whole } from "../options";
import { failureOf, note, tell, wrongCall } from "../output";
import { makesProject, writeSheetProject } from "../sheet-project";
import { reserveStandardOutput, STANDARD, UNNAMED, writeToStandardOutput } from "../standard";
import { readStill } from "../stills";

interface CutOptions {
  replace: boolean;
  cell?: { a: number; b: number };
  count?: { a: number; b: number };
  islands: boolean;
  suggest: boolean;
  meta?: string;
  read: Correction[];
  join?: number;
  least?: number;
  level: boolean;
  margin: { x: number; y: number };
  gap: { x: number; y: number };
  offset?: { x: number; y: number };
  columns?: { first: number; last: number };
  rows?: { first: number; last: number };
  clear?: Clearing["colours"][number] | "auto";
  tolerance?: number;
  specks?: number;
  keepEmpty: boolean;
  out?: string;
  project: boolean;
  clips?: "rows";
  json: boolean;
}

const NONE = { x: 0, y: 0 };
const WAYS = ["cell", "count", "islands", "meta", "suggest"] as const;

export function addCut(program: Command): void {
  const others = (way: (typeof WAYS)[number]) => WAYS.filter((each) => each !== way);
  program
    .command("cut")
    .summary("cut a sheet into frames")
    .description("Cuts a sheet into frames: by a grid, along outlines, or by a metadata file. With --out writes each frame as a PNG.")
    .argument("<image...>", "sheets: PNG, JPEG, WebP or TGA; - is one at standard input")
    .addOption(new Option("--cell <WxH>", "size of a cell in pixels").argParser(pair).conflicts(others("cell")))
    .addOption(new Option("--count <CxR>", "number of columns and rows").argParser(pair).conflicts(others("count")))
    .addOption(new Option("--islands", "along the outlines of what is drawn").default(false).conflicts(others("islands")))
    .addOption(new Option("--meta <file>", "by a metadata file of any make").conflicts(others("meta")))
    .addOption(
      new Option("--read <FIELD=MEANING>", `with --meta: the meaning of a field: ${Object.keys(MEANINGS).join(" ")} (repeatable)`)
        .argParser(correction)
        .default([], "as the file suggests"),
    )
    .addOption(new Option("--suggest", "cut nothing, suggest grids, best first").default(false).conflicts(others("suggest")))
    .addOption(new Option("--margin <X[,Y]>", "space before the first cell").argParser(spacing).default(NONE, "0"))
    .addOption(new Option("--gap <X[,Y]>", "space between cells").argParser(spacing).default(NONE, "0"))
    .option("--offset <X[,Y]>", "move the whole grid; may be negative", offset)
    .option("--columns <A-B>", "only these columns, counted from 0", range)
    .option("--rows <A-B>", "only these rows, counted from 0", range)
    .option("--join <N>", "with --islands: transparent pixels between parts of one frame", whole(0, 256))
    .option("--least <N>", "with --islands: the least drawn pixels of a frame", whole(1, 1_000_000))
    .option("--level", "with --islands: equal frame sizes in each row, on one line", false)
    .option("--clear <COLOUR|auto>", "first clear this background, from the edges inward", colourOrAuto)
    .option("--tolerance <N>", "with --clear COLOUR: how far a channel may be off", whole(0, 255))
    .option("--specks <N>", "also clear groups of at most N lone pixels", whole(1, 64))
    .option("--keep-empty", "also cut empty cells", false)
    .option(
      "--out <dir>",
      "write each frame to <dir>/<picture>_<index>.png; a name ending in .caravan makes a project; - writes a ZIP to standard output",
    )
    .option("--project", "with --out: write a project folder with the cut sheet and the clips of --meta", false)
    .addOption(new Option("--clips <what>", "with a project: make clips of the rows").choices(["rows"]))
    .option("--replace", "replace files in the way that Caravan did not write", false)
    .option("--json", "print one JSON document", false)
    .action(cut);
}

/** What came of a sheet, for programs and for people. */
interface Told {
  readonly told: object;
  readonly words: string;
}

/** Each of several sheets is cut by itself: a failure is reported, and the others are still cut. */
async function cut(images: string[], options: CutOptions): Promise<void> {
  refuseStrays(options, images);
  if (options.out === STANDARD) reserveStandardOutput(options.json);
  const zipped: NamedFile[] = [];
  const into = options.out === STANDARD ? zipped : null;
  const [only] = images;
  if (images.length === 1 && only !== undefined) {
    const { told, words } = await cutOne(only, options, into);
    if (into) writeToStandardOutput(zipped);
    tell(options.json, told, () => words);
    return;
  }
  const results: Told[] = [];
  for (const image of images)
    try {
      const { told, words } = await cutOne(image, options, into);
      results.push({ told, words: options.suggest ? `${image}:\n${words}` : words });
    } catch (error) {
      if (!(error instanceof CaravanError)) throw error;
      const failure = failureOf(error);
      results.push({ told: { image, error: failure }, words: `Not cut: ${failure.message}` });
      if (options.json) note(`caravan: ${failure.message}`);
      process.exitCode = 1;
    }
  if (into) writeToStandardOutput(zipped);
  tell(options.json, { results: results.map(({ told }) => told) }, () => results.map(({ words }) => words).join("\n"));
}

/** `into` receives the frames' files if they do not go into a folder. */
async function cutOne(image: string, options: CutOptions, into: NamedFile[] | null): Promise<Told> {
  const decoded = await readStill(image);
  const clearing = clearingOf(decoded, options, image);
  const pixels = asSeen(decoded, { clearing });
  const coverage = sheetCoverageOf(pixels);
  const sheet: Sheet = { image, decoded, clearing, pixels, coverage };
  if (options.suggest) return suggest(image, seenThrough(pixels, coverage, image), options);
  if (options.meta !== undefined) return byMetadata(sheet, options.meta, options, into);
  return byRecipe(sheet, recipeOf(options), options, into);
}

/** The picture as read, and with its background cleared. */
interface Sheet {
  readonly image: string;
  readonly decoded: Pixels;
  readonly clearing: Clearing | null;
  readonly pixels: Pixels;
  readonly coverage: Coverage;
}

/** Options that the chosen way of cutting would not heed are a slip of the hand. */
function refuseStrays(options: CutOptions, images: readonly string[]): void {
  const { islands, join, least, level, clear, tolerance, meta, read } = options;
  if (options.project && options.out === undefined) wrongCall("--project needs --out.");
  if (options.out === STANDARD && options.project) wrongCall("A project goes into a folder or a file, not to standard output.");
  if (images.length > 1 && (meta !== undefined || makesProject(options)))
    wrongCall("--meta and --project take one sheet. To make a project of several, use caravan new.");
  if (images.filter((image) => image === STANDARD).length > 1) wrongCall("Standard input can be read once, but - is given several times.");
  const twin =
    options.out === undefined ? undefined : images.find((image, k) => images.slice(0, k).some((other) => sameStem(other, image)));
  if (twin !== undefined)
    wrongCall(`Two sheets are called ${pictureName(twin)}: their frames would have the same names. Cut them with a separate --out each.`);
  if (options.clips && !makesProject(options)) wrongCall("--clips needs a project: an --out that ends in .caravan, or --project.");
  if (read.length > 0 && meta === undefined) wrongCall("--read needs --meta.");
  if (!islands && (join !== undefined || least !== undefined || level)) wrongCall("--join, --least and --level need --islands.");
  if (tolerance !== undefined && (clear === undefined || clear === "auto")) wrongCall("--tolerance needs --clear with a colour.");
}

/** How the ground is cleared away; null if it is left. */
function clearingOf(pixels: Pixels, { clear, tolerance = 0, specks }: CutOptions, image: string): Clearing | null {
  const small = specks ? { specks } : {};
  const bare: Clearing | null = specks ? { colours: [], tolerance: 0, from: "edges", fringe: false, specks } : null;
  if (clear === undefined) return bare;
  if (clear !== "auto") return { colours: [clear], tolerance, from: "edges", fringe: false, ...small };
  const ground = findGround(pixels);
  if (ground) return { ...ground.clearing, ...small };
  note(`${image}: There is no opaque background to clear; it is cut as it is.`);
  return bare;
}

function recipeOf(options: CutOptions): FindingCut {
  if (options.islands) return { by: "outlines", joinPx: options.join ?? 0, leastPx: options.least ?? 1, level: options.level };
  const { margin, gap, keepEmpty, offset: moved, columns, rows } = options;
  const only = columns || rows ? { only: { ...(columns ? { columns } : {}), ...(rows ? { rows } : {}) } } : {};
  const rest = { margin, gap, keepEmpty, ...(moved ? { offset: moved } : {}), ...only };
  if (options.cell) return { by: "cell", cell: { w: options.cell.a, h: options.cell.b }, ...rest };
  if (options.count) return { by: "count", columns: options.count.a, rows: options.count.b, ...rest };
  return wrongCall("Say how to cut: --cell WxH, --count CxR, --islands, --meta FILE or --suggest.");
}

async function byRecipe(sheet: Sheet, recipe: FindingCut, options: CutOptions, into: NamedFile[] | null): Promise<Told> {
  const { image, pixels, coverage } = sheet;
  const { width, height } = pixels;
  const { pieces, skippedEmpty, small } = cutSheet(coverage, recipe, image);
  const picture = pictureName(image);
  if (makesProject(options)) writeSheetProject(sheet, { cut: recipe, coverages: [coverage] }, options);
  else
    await write(
      options,
      image,
      pixels,
      pieces.map((piece) => ({ ...piece, name: `${picture}_${piece.number}` })),
      into,
    );
  const frames = pieces.map(({ number, rect, column, row, empty, size, inset }) => ({
    name: `${picture}_${number}`,
    ...rect,
    column,
    row,
    empty,
    ...(size ? { size, inset } : {}),
  }));
  const written = options.out === undefined ? "" : `; written to ${options.out}`;
  if (recipe.by === "outlines") {
    const dirt = small > 0 ? `, ${small} smaller than ${recipe.leastPx} pixels left out` : "";
    return {
      told: { image, width, height, frames, skippedEmpty, skippedSmall: small },
      words: `${image}: ${counted(frames.length, "frame")} along outlines${dirt}${written}`,
    };
  }
  const { columns, rows, cell, leftOver } = gridOf({ w: width, h: height }, recipe as GridCut, image);
  const left =
    leftOver.right + leftOver.bottom > 0
      ? `, ${leftOver.right} px left over at right and ${leftOver.bottom} px at bottom`
      : ", nothing left over";
  return {
    told: { image, width, height, cell, columns, rows, frames, skippedEmpty, leftOver },
    words: `${image}: ${columns} × ${rows} cells of ${cell.w} × ${cell.h} px, ${counted(frames.length, "frame")}, ${skippedEmpty} empty left out${left}${written}`,
  };
}

async function byMetadata(sheet: Sheet, file: string, options: CutOptions, into: NamedFile[] | null): Promise<Told> {
  const { image, pixels, coverage } = sheet;
  const described = { picture: basename(image), coverage };
  const { parsed, reading, grade } = recogniseAs(textFromUtf8(readFile(file)), described, file, options.read);
  const { frames, unplaced } = readFrames(parsed, reading, described);
  const layers = layersIn(parsed.tree, basename(image)).layers.map(({ blendSaid, ...layer }) => ({
    ...layer,
    blendSaid: blendSaid ?? undefined,
  }));
  const clips = readClips(parsed, reading, frames).map((clip) => ({
    ...clip,
    steps: clip.steps.map(({ frame, ms, events }) => ({ frame, ms, ...(events ? { events } : {}) })),
  }));
  if (frames.length === 0)
    throw new CaravanError("bad-metadata", file, "No frame of it lies on this picture.", `First: ${unplaced[0]?.why ?? ""}`);
  if (grade.grade === "doubtful")
    note(`${file}: The reading is doubtful: ${grade.reasons.join("; ")}. Say what fields mean with --read FIELD=MEANING.`);
  if (makesProject(options)) {
    const told = framesAndClips({ frames, clips: readClips(parsed, reading, frames) }, basename(file));
    const cutBy = { cut: { by: "metadata", file: basename(file), reading } as const, told: told.told };
    writeSheetProject(sheet, { ...cutBy, clips: told.clips }, options);
  } else
    await write(
      options,
      image,
      pixels,
      frames.map((frame) => ({ ...frame, turned: frame.turned || undefined, name: fileStemOf(frame.name) })),
      into,
    );
  const told = {
    image,
    width: pixels.width,
    height: pixels.height,
    frames: frames.map(({ name, rect, turned, inset, size, origin, boxes, points, ms }, k) => ({
      name,
      ...rect,
      column: k,
      row: 0,
      empty: false,
      turned,
      inset,
      size,
      ...(origin ? { origin } : {}),
      ...(Object.keys(boxes).length > 0 ? { boxes } : {}),
      ...(Object.keys(points).length > 0 ? { points } : {}),
      ...(ms === null ? {} : { ms }),
    })),
    skippedEmpty: 0,
    clips,
    ...(layers.length > 0 ? { layers } : {}),
    reading: { container: reading.container, fields: fieldsOf(reading) },
    unplaced,
    ...grade,
  };
  const left = unplaced.length > 0 ? `, ${unplaced.length} that do not fit left out` : "";
  const written = options.out === undefined ? "" : `; written to ${options.out}`;
  return {
    told,
    words: `${image}: ${counted(frames.length, "frame")} and ${counted(clips.length, "clip")} as ${file} says${left}${written}`,
  };
}

function correction(text: string, before: readonly Correction[]): Correction[] {
  const at = text.lastIndexOf("=");
  const [path, meaning] = [text.slice(0, at), text.slice(at + 1)];
  if (at < 1 || !isMeaning(meaning)) return wrongCall(`--read ${text}: say FIELD=MEANING, with one of ${Object.keys(MEANINGS).join(" ")}.`);
  return [...before, { path, meaning }];
}

/** Our fields and where they were found, as whole paths of the file. */
function fieldsOf({ frames, fields }: Reading): Record<string, string> {
  const whole = (path: string) => (path.startsWith("../") ? path.slice(3) : path === "" ? frames : `${frames}.${path}`);
  return Object.fromEntries(Object.entries(fields).map(([field, path]) => [field, path === "$key" ? `${frames} (its key)` : whole(path)]));
}

/** The drawing on an opaque background, if there is one: grids are found by it. */
function seenThrough(pixels: Pixels, coverage: Coverage, image: string): Coverage {
  const ground = coverage.colours ? findGround(pixels) : null;
  if (!ground) return coverage;
  note(`${image}: These suggestions ignore its opaque background; --clear auto clears it when cutting.`);
  return coverageOf(clearGround(pixels, ground.clearing));
}

function suggest(image: string, coverage: Coverage, options: CutOptions): Told {
  if (options.out !== undefined) wrongCall("--suggest cuts nothing; leave out --out.");
  const suggestions = suggestGrids(coverage);
  const along = suggestOutlines(coverage, suggestions);
  const outlines = along && { first: along.first, frames: along.count, join: along.cut.joinPx, least: along.cut.leastPx };
  const said =
    outlines &&
    `along outlines: ${counted(outlines.frames, "frame")} (--islands --join ${outlines.join} --least ${outlines.least} --level)`;
  const grids = suggestions.map(
    ({ cell, margin, gap, columns, rows, score }) =>
      `${columns} × ${rows} cells of ${cell.w} × ${cell.h} px, margin ${margin.x},${margin.y}, gap ${gap.x},${gap.y} (${score.toFixed(2)})`,
  );
  const lines = said ? (outlines?.first ? [`${said}; no grid fits`, ...grids] : [...grids, said]) : grids;
  return {
    told: { image, width: coverage.width, height: coverage.height, suggestions, outlines },
    words: lines.length === 0 ? `${image}: nothing is drawn in it` : lines.join("\n"),
  };
}

function pictureName(image: string): string {
  return image === STANDARD ? UNNAMED : basename(image, extname(image));
}

function sameStem(a: string, b: string): boolean {
  return pictureName(a).toLowerCase() === pictureName(b).toLowerCase();
}

/** A frame's name as a file name: flat, without an extension. */
function fileStemOf(name: string): string {
  return fitFileName(name.replace(/\.(png|gif|webp|jpe?g|bmp)$/i, ""));
}

type Written = Omit<FrameFile, "path"> & { readonly name: string };

async function write(
  { out, replace }: Pick<CutOptions, "out" | "replace">,
  image: string,
  pixels: Pixels,
  frames: readonly Written[],
  into: NamedFile[] | null,
): Promise<void> {
  if (out === undefined) return;
  const placed = withPaths(frames);
  if (into) into.push(...frameFiles(pixels, placed));
  else await writeFrames(out, pixels, placed, `cut ${pictureName(image)}`, replace);
}

/** Names that differ only in case are one file on most desktops: the later one gets a number. */
function withPaths(frames: readonly Written[]): FrameFile[] {
  const taken = new Set<string>();
  return frames.map(({ name: wanted, rect, size, inset, turned }) => {
    let name = wanted;
    for (let k = 2; taken.has(name.toLowerCase()); k++) name = `${wanted}-${k}`;
    taken.add(name.toLowerCase());
    return { path: `${name}.png`, rect, size, inset, turned };
  });
}
