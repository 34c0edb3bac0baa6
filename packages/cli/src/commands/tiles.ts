import { existsSync } from "node:fs";
import { basename, join } from "node:path";
import { PROJECT_FILE } from "@caravan/core/bundle";
import { chosenFrames } from "@caravan/core/delivery-plan";
import { CaravanError, counted, type FrameRef, frameRef } from "@caravan/core/model";
import { crop } from "@caravan/core/raster";
import { type NamedPixels, tilesOf } from "@caravan/core/tiles";
import { type Command, InvalidArgumentError } from "commander";
import { isFolder } from "../files";
import { pair } from "../options";
import { pngCodec } from "../png";
import { openProject } from "../project";
import { readStill, STILL_ENDING } from "../stills";
import { takenFiles } from "../taken-art";
import { note, tell } from "../tell";

export function addTiles(program: Command): void {
  program
    .command("tiles")
    .summary("count the tiles and colours that pictures or a project need")
    .description(
      "Counts distinct tiles and colours: of pictures and folders of them, or of every frame that a project delivers. Clear tiles do not count, and flipped ones are one.",
    )
    .argument("<paths...>", "pictures and folders of pictures, or one project")
    .option("--tile <WxH>", "the size of a tile in pixels", tileSize, { w: 8, h: 8 })
    .option("--no-flips", "count tiles that are each other's flip as several")
    .option("--json", "print one JSON document", false)
    .action(tiles);
}

/** Larger ones are no tiles of any machine. */
const LARGEST = 1024;

function tileSize(text: string): { w: number; h: number } {
  const { a: w, b: h } = pair(text);
  if (Math.max(w, h) > LARGEST) throw new InvalidArgumentError(`Write a size of at most ${LARGEST}x${LARGEST}.`);
  return { w, h };
}

interface TilesOptions {
  readonly tile: { readonly w: number; readonly h: number };
  readonly flips: boolean;
  readonly json: boolean;
}

async function tiles(paths: readonly string[], { tile, flips, json }: TilesOptions): Promise<void> {
  const [first] = paths;
  const project = paths.length === 1 && first !== undefined && isProject(first) ? first : null;
  const frames = project === null ? await picturesAt(paths) : framesDelivered(project);
  const found = tilesOf(frames, tile, flips);
  const told = {
    tile,
    frames: frames.length,
    tiles: found.placed.length,
    distinct: found.distinct,
    colours: found.colours,
    perFrame: found.perFrame,
  };
  tell(json, told, () =>
    [
      `${counted(told.tiles, "tile")} of ${tile.w} × ${tile.h} px in ${counted(told.frames, project === null ? "picture" : "frame")}, ${told.distinct} distinct, ${counted(told.colours, "colour")}`,
      ...found.perFrame.map((each) => `${each.name}: ${counted(each.tiles, "tile")}, ${each.own} its own`),
    ].join("\n"),
  );
}

function isProject(path: string): boolean {
  if (isFolder(path)) return existsSync(join(path, PROJECT_FILE));
  return basename(path) === PROJECT_FILE || /\.caravan$/i.test(path);
}

/** Every frame that some delivery takes, once, by the name that the first of them gives it. */
function framesDelivered(path: string): NamedPixels[] {
  const { project, art } = openProject(path);
  const frames = new Map<FrameRef, NamedPixels>();
  for (const delivery of project.deliveries) {
    const chosen = chosenFrames(project, delivery);
    for (const [k, { source, frame }] of chosen.frames.entries()) {
      const ref = frameRef(source, frame);
      if (frames.has(ref)) continue;
      const { pixels, rect } = art.frame(source, frame);
      frames.set(ref, { name: chosen.names[k] as string, pixels: crop(pixels, rect) });
    }
  }
  return [...frames.values()];
}

/** In the order given; in folders in natural order. Of an animation and of layers each picture by itself. */
async function picturesAt(paths: readonly string[]): Promise<NamedPixels[]> {
  const found: NamedPixels[] = [];
  for (const path of paths) {
    if (!isFolder(path) && STILL_ENDING.test(path)) {
      found.push({ name: path, pixels: await readStill(path) });
      continue;
    }
    const { items, pictures, failed } = await takenFiles([path]);
    for (const each of failed) note(each);
    const pixelsOf = ({ sha256 }: { readonly sha256: string }) => pngCodec().decode(pictures.get(sha256) as Uint8Array, path);
    for (const { path: name, art } of items) {
      if (art.kind === "still") found.push({ name, pixels: pixelsOf(art.picture) });
      else if (art.kind === "animation") found.push(...art.pictures.map((each, k) => ({ name: `${name}/${k}`, pixels: pixelsOf(each) })));
      else found.push(...art.layers.map((each) => ({ name: `${name}/${each.name}`, pixels: pixelsOf(each) })));
    }
  }
  if (found.length === 0)
    throw new CaravanError("not-found", paths.join(", "), "There is no picture.", "Name pictures, folders with pictures, or a project.");
  return found;
}
