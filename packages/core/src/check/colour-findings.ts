/**
 * Findings about colours that were probably meant to be one, and colours that a palette narrowly misses. They depend on pixels, so
 * callers that have read those pass in what they saw.
 */
import { singleLooks } from "../art";
import { alsoTaken, drawAlike } from "../edit";
import { counted, isOfPieces, type Palette, type Project, type Source, type SourceId } from "../model";
import { colourDistance, nearlyEqual, recolouringOf, type UsedColour } from "../palette";
import { hexOf, type Rgb, rgbOf } from "../raster";
import { t } from "../words";
import type { SeenArt } from "./art-findings";
import type { Finding } from "./finding";

/** Art of more colours is no art of palettes: in a painting neighbouring colours are meant. */
const MOST_OF_PALETTE_ART = 64;
/** Less than this in OKLab two colours are apart by a slip of a tool: a level or two of red, green and blue. Neighbours in a hand-made ramp are further. */
const SLIP = 0.008;
/** Less than this in OKLab a colour misses one of a palette by accident. */
const MISSED = 0.04;
/** Fewer pixels of the commoner one are remains of something, not a colour. */
const LEAST_OF_COMMON = 16;
/** Pairs that a message names. */
const NAMED = 2;

/** Cost: O(sources × colours²). */
export function colourFindings(project: Project, seen: Pick<SeenArt, "colours">): Finding[] {
  const wearing = palettesWorn(project);
  return project.sources.flatMap((source): Finding[] => {
    if (isOfPieces(source) || !source.frames.some(({ dropped, empty }) => !dropped && !empty)) return [];
    const used = coloursOf(source, seen.colours);
    if (used.length === 0 || used.length > MOST_OF_PALETTE_ART) return [];
    return [...almostOne(project, source, used), ...justOutside(project, source, used, wearing.get(source.id) ?? new Set())];
  });
}

/** The colours of all pictures of a source that were seen, the most used first. */
function coloursOf(source: Source, seen: SeenArt["colours"]): UsedColour[] {
  const counts = new Map<string, number>();
  for (const { key } of singleLooks(source))
    for (const { colour, pixels } of seen.get(key) ?? []) counts.set(colour, (counts.get(colour) ?? 0) + pixels);
  return [...counts].map(([colour, pixels]) => ({ colour, pixels })).sort((a, b) => b.pixels - a.pixels);
}

/** For each source the palettes that it wears, itself or as pieces on other frames. */
function palettesWorn({ sources }: Project): Map<SourceId, Set<string>> {
  const worn = new Map<SourceId, Set<string>>();
  const wear = (id: SourceId, palette: string) => worn.set(id, (worn.get(id) ?? new Set()).add(palette));
  for (const { id, palette, frames } of sources) {
    if (palette !== undefined) wear(id, palette);
    for (const { pieces = [] } of frames)
      for (const piece of pieces)
        if (piece.palette !== undefined) wear(piece.of.slice(0, piece.of.indexOf("/")) as SourceId, piece.palette);
  }
  return worn;
}

const rgb = (colour: string): Rgb => rgbOf(colour as Parameters<typeof rgbOf>[0]);

function almostOne(project: Project, source: Source, used: readonly UsedColour[]): Finding[] {
  const turned = new Map(
    (recolouringOf(project.palettes ?? [], source.palette) ?? []).map(([from, to]) => [hexOf(rgbOfNumber(from)), hexOf(rgbOfNumber(to))]),
  );
  const shown = (colour: string) => turned.get(colour) ?? colour;
  const pixels = new Map(used.map((each) => [each.colour, each.pixels]));
  const pairs = nearlyEqual(
    used.map(({ colour }) => rgb(colour)),
    SLIP,
  )
    .map(([one, other]) => [hexOf(one), hexOf(other)] as const)
    .filter(([one, other]) => shown(one) !== shown(other))
    // The rarer of two is the slip.
    .map(([one, other]) => ((pixels.get(one) ?? 0) <= (pixels.get(other) ?? 0) ? ([one, other] as const) : ([other, one] as const)))
    .filter(([, common]) => (pixels.get(common) ?? 0) >= LEAST_OF_COMMON);
  if (pairs.length === 0) return [];
  const named = pairs.slice(0, NAMED).map(([rare, common]) =>
    t("{rare} ({pixels}) and {common} ({others})", {
      rare,
      pixels: counted(pixels.get(rare) ?? 0, "pixel"),
      common,
      others: pixels.get(common) ?? 0,
    }),
  );
  const more = pairs.length > NAMED ? t(", and {pairs} more", { pairs: pairs.length - NAMED }) : "";
  return [
    {
      code: "colours-nearly-equal",
      severity: "note",
      where: t('source "{name}"', { name: source.name }),
      message: t("Nobody can tell these colours apart; they were probably meant to be the same: {named}{more}.", {
        named: named.join("; "),
        more,
      }),
      place: { stop: "sources", source: source.id },
      mend: { label: t("Make them equal"), apply: (now) => drawAlike(now, source.id, pairs) },
    },
  ];
}

function rgbOfNumber(colour: number): Rgb {
  return [colour >> 16, (colour >> 8) & 255, colour & 255];
}

function justOutside({ palettes = [] }: Project, source: Source, used: readonly UsedColour[], worn: ReadonlySet<string>): Finding[] {
  const bases = new Map<string, Palette>();
  for (const name of worn) {
    const base = palettes.find((each) => each.name === palettes.find((palette) => palette.name === name)?.of);
    if (base) bases.set(base.name, base);
  }
  return [...bases.values()].flatMap((base): Finding[] => {
    const missed = used.flatMap(({ colour }) => {
      if (base.colours.includes(colour)) return [];
      const [nearest] = base.colours
        .map((each) => ({ like: each, apart: colourDistance(rgb(each), rgb(colour)) }))
        .sort((a, b) => a.apart - b.apart);
      if (!nearest || nearest.apart >= MISSED) return [];
      // Colours that become equal are already equal.
      const place = base.colours.indexOf(nearest.like);
      const alike = palettes.filter(({ name, of }) => of === base.name && worn.has(name)).every(({ colours }) => colours[place] === colour);
      return alike ? [] : [{ colour, like: nearest.like }];
    });
    const [first] = missed;
    if (!first) return [];
    const more = missed.length > 1 ? t(", and {missed} more", { missed: missed.length - 1 }) : "";
    return [
      {
        code: "colour-outside-palette",
        severity: "warning",
        where: t('source "{name}"', { name: source.name }),
        message: t("{colour} is not in {name}, though nearly its {like}{more}: it stays as drawn when another palette replaces {name}.", {
          colour: first.colour,
          name: base.name,
          like: first.like,
          more,
        }),
        place: { stop: "sources", source: source.id },
        mend: {
          label: missed.length === 1 ? t("Treat it as {like}", { like: first.like }) : t("Treat each as the nearest"),
          apply: (now) => missed.reduce((made, { colour, like }) => alsoTaken(made, base.name, colour, like), now),
        },
      },
    ];
  });
}
