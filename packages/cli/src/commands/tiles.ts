import { counted } from "@caravan/core/model";
import { tilesOf } from "@caravan/core/tiles";
import { type Command, InvalidArgumentError, Option } from "commander";
import { framesAt } from "../frames-at";
import { givenPaths } from "../given-paths";
import { pair } from "../options";
import { tell } from "../output";

export function addTiles(program: Command): void {
  program
    .command("tiles")
    .summary("count the tiles and colours that pictures or a project need")
    .description(
      "Counts distinct tiles and colours: of pictures and folders of them, or of every frame that a project delivers. Transparent tiles are not counted, and flipped ones count as one.",
    )
    .argument("<paths...>", "pictures and folders of pictures, or one project", givenPaths)
    .addOption(new Option("--tile <WxH>", "the size of a tile in pixels").argParser(tileSize).default({ w: 8, h: 8 }, "8x8"))
    .option("--no-flips", "count flipped tiles separately")
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
  const { frames, isProject } = await framesAt(paths);
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
      `${counted(told.tiles, "tile")} of ${tile.w} × ${tile.h} px in ${counted(told.frames, isProject ? "frame" : "picture")}, ${told.distinct} distinct, ${counted(told.colours, "colour")}`,
      ...found.perFrame.map((each) => `${each.name}: ${counted(each.tiles, "tile")}, ${each.own} its own`),
    ].join("\n"),
  );
}
