import { asSeen } from "@caravan/core/art";
import type { NamedFile } from "@caravan/core/codec";
import type { Correction } from "@caravan/core/metadata";
import { CaravanError, type Clearing, type Colour, isMeaning, MEANINGS, MOST_GROUNDS } from "@caravan/core/model";
import { findBlocks, sheetCoverageOf } from "@caravan/core/raster";
import { type Command, Option } from "commander";
import { type CutOptions, clearingOf, makesProject, recipeOf, refuseStrays } from "../cutting/call";
import type { Sheet, Told } from "../cutting/sheet";
import { readFile } from "../files";
import { startThreads } from "../frame-files";
import { givenPaths } from "../given-paths";
import { coloursOrAuto, offset, pair, range, spacing, whole } from "../options";
import { failureOf, note, tell, wrongCall } from "../output";
import { pixelsIn } from "../png";
import { calledInWords, reserveStandardOutput, STANDARD, writeToStandardOutput } from "../standard";
import { decodeStill } from "../stills";

const NONE = { x: 0, y: 0 };
const WAYS = ["cell", "count", "islands", "meta", "suggest"] as const;

export function addCut(program: Command): void {
  const others = (way: (typeof WAYS)[number]) => WAYS.filter((each) => each !== way);
  program
    .command("cut")
    .summary("cut a sheet into frames")
    .description("Cuts a sheet into frames: by a grid, along outlines, or by a metadata file. With --out writes each frame as a PNG.")
    .argument("<image...>", "sheets: PNG, JPEG, WebP or TGA; - is one at standard input", givenPaths)
    .addOption(new Option("--cell <WxH>", "size of a cell in pixels").argParser(pair).conflicts(others("cell")))
    .addOption(new Option("--count <CxR>", "number of columns and rows").argParser(pair).conflicts(others("count")))
    .option("--spread", "with --count: spread the pixels left over between the cells, each at its rounded place", false)
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
    .option("--clear <COLOUR[,COLOUR]|auto>", "first clear this background, from the edges inward", coloursOrAuto)
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
  // Code and threads load while the sheet is unpacked.
  const way = wayOf(options);
  const bytes = readFile(image);
  if (options.out !== undefined && !into && !makesProject(options)) startThreads(pixelsIn(bytes));
  const decoded = await decodeStill(bytes, calledInWords(image));
  const clearing = clearingOf(decoded, options, image);
  const pixels = asSeen(decoded, { clearing });
  const coverage = sheetCoverageOf(pixels);
  if (clearing) noteBlocks(image, clearing, findBlocks(pixels, coverage));
  return (await way)({ image, decoded, clearing, pixels, coverage }, into);
}

function noteBlocks(image: string, { colours }: Clearing, blocks: Colour | null): void {
  if (blocks === null) return;
  // Without their signs: a shell takes what follows one for a comment.
  const all = [...colours, blocks].map((each) => each.slice(1)).join(",");
  const how = colours.length < MOST_GROUNDS ? ` --clear ${all} clears these too.` : "";
  note(`${image}: Its figures stand in front of blocks of ${blocks}, which are left.${how}`);
}

type Way = (sheet: Sheet, into: NamedFile[] | null) => Told | Promise<Told>;

async function wayOf(options: CutOptions): Promise<Way> {
  const { suggest, meta } = options;
  if (suggest) {
    const { suggested } = await import("../cutting/suggested");
    return (sheet) => suggested(sheet, options);
  }
  if (meta !== undefined) {
    const { byMetadata } = await import("../cutting/by-metadata");
    return (sheet, into) => byMetadata(sheet, meta, options, into);
  }
  const { byRecipe } = await import("../cutting/by-recipe");
  return (sheet, into) => byRecipe(sheet, recipeOf(options), options, into);
}

function correction(text: string, before: readonly Correction[]): Correction[] {
  const at = text.lastIndexOf("=");
  const [path, meaning] = [text.slice(0, at), text.slice(at + 1)];
  if (at < 1 || !isMeaning(meaning)) return wrongCall(`--read ${text}: say FIELD=MEANING, with one of ${Object.keys(MEANINGS).join(" ")}.`);
  return [...before, { path, meaning }];
}
