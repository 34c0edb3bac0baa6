import { counted } from "@caravan/core/model";
import { maskOf, traced } from "@caravan/core/outline";
import { type Command, InvalidArgumentError } from "commander";
import { framesAt } from "../frames-at";
import { givenPaths } from "../given-paths";
import { tell } from "../output";

export function addOutline(program: Command): void {
  program
    .command("outline")
    .summary("trace outlines in pictures or a project's frames")
    .description(
      "Traces a polygon around each island of drawn pixels, in whole pixels, with the fewest corners within a tolerance: for pictures, folders of pictures, or every frame that a project delivers.",
    )
    .argument("<paths...>", "pictures and folders of pictures, or one project", givenPaths)
    .option("--within <px>", "how far the line may be from the pixels; 0 follows each pixel", within, 1)
    .option("--corners <n>", "wanted limit for a polygon; exceeding it is reported", whole(3, 65_536), 24)
    .option("--alpha <n>", "pixels count from this alpha, 1 to 255", whole(1, 255), 1)
    .option("--least <px>", "ignore islands of fewer pixels", whole(1, 1_000_000_000), 4)
    .option("--convex", "without dents", false)
    .option("--parts", "split into polygons without dents", false)
    .option("--json", "print one JSON document", false)
    .action(outline);
}

interface OutlineOptions {
  readonly within: number;
  readonly corners: number;
  readonly alpha: number;
  readonly least: number;
  readonly convex: boolean;
  readonly parts: boolean;
  readonly json: boolean;
}

async function outline(paths: readonly string[], { within, corners, alpha, least, convex, parts, json }: OutlineOptions): Promise<void> {
  const { frames } = await framesAt(paths);
  const found = frames.map(({ name, pixels }) => {
    const { polygons, over } = traced(maskOf(pixels, { x: 0, y: 0, w: pixels.width, h: pixels.height }, alpha), {
      withinPx: within,
      corners,
      leastPx: least,
      ...(convex ? { convex: "around" as const } : parts ? { convex: "parts" as const } : {}),
    });
    return { name, width: pixels.width, height: pixels.height, polygons, over };
  });
  const told = {
    frames: found.map(({ over, polygons, ...each }) => ({
      ...each,
      polygons: polygons.map((polygon) => polygon.map(({ x, y }) => [x, y])),
      ...(over > 0 ? { over } : {}),
    })),
  };
  tell(json, told, () =>
    found
      .map(({ name, polygons, over }) => {
        const all = polygons.reduce((sum, { length }) => sum + length, 0);
        const more = over > 0 ? `; the largest has ${over} more than ${corners}, to stay within ${within} px` : "";
        return `${name}: ${counted(polygons.length, "polygon")}, ${counted(all, "corner")}${more}`;
      })
      .join("\n"),
  );
}

/** Further away than this it would be no outline of the figure. */
const FURTHEST = 64; // px

function within(text: string): number {
  const value = Number(text);
  if (text.trim() === "" || !(value >= 0 && value <= FURTHEST))
    throw new InvalidArgumentError(`Write pixels from 0 to ${FURTHEST}, such as 1 or 0.5.`);
  return value;
}

function whole(least: number, most: number): (text: string) => number {
  return (text) => {
    const value = Number(text);
    if (!/^\d+$/.test(text) || value < least || value > most)
      throw new InvalidArgumentError(`Write a whole number from ${least} to ${most}.`);
    return value;
  };
}
