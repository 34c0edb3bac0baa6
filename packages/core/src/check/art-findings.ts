/** Findings about the pictures themselves. They depend on files and pixels, so callers that have read those pass in what they saw. */
import { allPictures, type Clearing, counted, type Project, type Source, type SourceId, sheetOf, unreachable } from "../model";
import type { UsedColour } from "../palette";
import type { Ground } from "../raster";
import type { Walk } from "../stage";
import { t } from "../words";
import type { Finding } from "./finding";
import type { SeenOutlines } from "./outline-findings";

/** What is known about the project's pictures; unread ones are in neither set. */
export interface SeenArt {
  /** Hashes of pictures that are not there. */
  readonly missing: ReadonlySet<string>;
  /** Files with the very picture of a missing one, by its hash, where somebody looked for them. */
  readonly elsewhere?: ReadonlyMap<string, string>;
  /** Opaque grounds by the picture's hash, as the file is, before any clearing. */
  readonly grounds: ReadonlyMap<string, Ground>;
  /** Walks by their `walkKey`. */
  readonly walks: ReadonlyMap<string, Walk>;
  /** The colours of pictures by the key of their look in the colours they are drawn in; none of pictures with more than a palette holds. */
  readonly colours: ReadonlyMap<string, readonly UsedColour[]>;
  /** Outlines as they are traced, by frame. */
  readonly outlines: SeenOutlines;
}

export const NOTHING_SEEN: SeenArt = { missing: new Set(), grounds: new Map(), walks: new Map(), colours: new Map(), outlines: new Map() };

/** Missing art first, then opaque grounds of sheets that are delivered, source by source. Cost: O(pictures + frames). */
export function artFindings({ sources }: Project, { missing, elsewhere, grounds }: SeenArt): Finding[] {
  return [
    ...sources.flatMap((source) => missingArt(source, missing, elsewhere)),
    ...sources.flatMap((source) => opaqueGround(source, grounds)),
  ];
}

function missingArt(source: Source, missing: SeenArt["missing"], elsewhere: SeenArt["elsewhere"]): Finding[] {
  const gone = allPictures(source).filter(({ sha256 }) => missing.has(sha256));
  if (gone.length === 0) return [];
  const files = gone.slice(0, 3).map(({ file }) => file);
  const more = gone.length > files.length ? t(" and {gone} more", { gone: gone.length - files.length }) : "";
  const said =
    gone.length === 1
      ? t("{files}{more} is missing. Add the art again: its recipe, frames and clips are kept.", { files: files.join(", "), more })
      : t("{files}{more} are missing. Add the art again: its recipe, frames and clips are kept.", { files: files.join(", "), more });
  const renamed = gone.flatMap(({ file, sha256 }) => {
    const now = elsewhere?.get(sha256);
    return now === undefined ? [] : [t("{file} is now {now}", { file, now })];
  });
  const instead = t("{renamed}: correct the path in caravan.json, or open the folder in the studio, which follows it.", {
    renamed: renamed.slice(0, 3).join(", ") + (renamed.length > 3 ? t(" and {gone} more", { gone: renamed.length - 3 }) : ""),
  });
  return [
    {
      code: "missing-art",
      severity: "error",
      where: t('source "{name}"', { name: source.name }),
      message: renamed.length > 0 ? `${said} ${instead}` : said,
      place: { stop: "sources", source: source.id },
    },
  ];
}

function opaqueGround(source: Source, grounds: SeenArt["grounds"]): Finding[] {
  const kept = source.frames.filter(({ dropped }) => !dropped).length;
  if (source.pictures.length === 0) return [];
  const ground = grounds.get(sheetOf(source).sha256);
  if (!ground || kept === 0 || (source.clearing?.colours.length ?? 0) > 0) return [];
  return [
    {
      code: "opaque-ground",
      severity: "warning",
      where: t('source "{name}"', { name: source.name }),
      message: t("Its {frames} on {ground}, also in the game.", {
        frames: counted(kept, "frame stands", "frames stand"),
        ground: inWords(ground),
      }),
      place: { stop: "sources", source: source.id },
      mend: { label: t("Clear the background"), clears: clearingOver(source, ground) },
    },
  ];
}

/** Specks that are already cleared stay cleared. */
function clearingOver({ id, clearing }: Source, ground: Ground): { source: SourceId; clearing: Clearing } {
  return { source: id, clearing: clearing?.specks ? { ...ground.clearing, specks: clearing.specks } : ground.clearing };
}

function inWords({ kind, clearing }: Ground): string {
  switch (kind) {
    case "plain":
      return t("an opaque background of {colour}", { colour: clearing.colours[0] ?? "" });
    case "key":
      return t("a background of the key colour {colour}", { colour: clearing.colours[0] ?? "" });
    case "checker":
      return t("a picture of a checkerboard");
    default:
      return unreachable(kind);
  }
}
