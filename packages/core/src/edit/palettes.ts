/** Edits palettes: create, rename with all references, change, remove. */
import { CaravanError, checkedName, counted, freeName, MOST_COLOURS, Palette, type Piece, type Project, paletteNamed } from "../model";
import { t } from "../words";
import { edit } from "./edit";

/** Throws `bad-number` for invalid or too many colours. A name that is taken gets a number. */
export const addPalette = edit(
  (_project, palette: Palette) => t("make the palette {name}", { name: palette.name.trim() }),
  (project, palette): Project => {
    const before = project.palettes ?? [];
    const name = freeName(checkedName(palette.name, t("palette name")), new Set(before.map((each) => each.name)), " ");
    return { ...project, palettes: [...before, fitPalette({ ...palette, name })] };
  },
);

export const setPaletteColours = edit(
  (_project, name: string, colours: readonly string[]) =>
    t("set the {colours} of {name}", { colours: counted(colours.length, "colour"), name }),
  (project, name, colours) => changed(project, name, (palette) => ({ ...palette, colours: [...colours] })),
);

/** Sets the palette that it replaces; null makes it one to draw in. */
export const setPaletteOf = edit(
  (_project, name: string, of: string | null) =>
    of === null ? t("let {name} replace nothing", { name }) : t("let {name} replace {of}", { name, of }),
  (project, name, of) => {
    if (of === name)
      throw new CaravanError("bad-call", t('palette "{name}"', { name }), t("It cannot replace itself."), t("Choose another palette."));
    if (of !== null) paletteNamed(project, of);
    return changed(project, name, ({ of: _before, ...palette }) => (of === null ? palette : { ...palette, of }));
  },
);

/** Throws `bad-name` or `name-taken`. */
export const renamePalette = edit(
  (_project, from: string, to: string) => t("rename {from} to {to}", { from, to: to.trim() }),
  (project, from, wanted) => {
    const to = checkedName(wanted, t("palette name"));
    const { name } = paletteNamed(project, from);
    if (name === to) return project;
    if (project.palettes?.some((each) => each.name === to))
      throw new CaravanError(
        "name-taken",
        t('palette "{to}"', { to }),
        t("There is already a palette of this name."),
        t("Choose another name."),
      );
    const palettes = (project.palettes ?? []).map((each) => ({
      ...each,
      ...(each.name === from ? { name: to } : {}),
      ...(each.of === from ? { of: to } : {}),
    }));
    const sources = project.sources.map((source) => (source.palette === from ? { ...source, palette: to } : source));
    return withPieces({ ...project, palettes, sources }, (piece) => (piece.palette === from ? { ...piece, palette: to } : piece));
  },
);

/** Sources and pieces that wear it keep its name, so that its absence is visible. */
export const removePalette = edit(
  (_project, name: string) => t("remove the palette {name}", { name }),
  (project, name): Project => {
    const gone = paletteNamed(project, name);
    const { palettes = [], ...rest } = project;
    const left = palettes.filter((each) => each !== gone);
    return left.length > 0 ? { ...project, palettes: left } : rest;
  },
);

/**
 * Makes a palette treat one more colour like one of its own: when another palette replaces it, both become the same. Throws `not-found` for
 * an unknown palette or colour.
 */
export const alsoTaken = edit(
  (_project, name: string, colour: string, like: string) => t("treat {colour} as {like} in {name}", { colour, like, name }),
  (project, name, colour, like): Project => {
    const base = paletteNamed(project, name);
    const place = base.colours.indexOf(like);
    if (place < 0)
      throw new CaravanError(
        "not-found",
        t('palette "{name}"', { name }),
        t("It has no {like}.", { like }),
        t("Choose one of its colours."),
      );
    if (base.colours.includes(colour)) return project;
    const at = base.colours.length;
    const palettes = (project.palettes ?? []).map((palette) => {
      if (palette !== base && palette.of !== name) return palette;
      if (palette === base) return fitPalette({ ...palette, colours: [...palette.colours, colour] });
      // One that is shorter stays as drawn in the places that it lacks.
      const filled = [...palette.colours, ...base.colours.slice(palette.colours.length)].slice(0, at);
      return fitPalette({ ...palette, colours: [...filled, filled[place] ?? like, ...palette.colours.slice(at)] });
    });
    return { ...project, palettes };
  },
);

function changed(project: Project, name: string, change: (palette: Palette) => Palette): Project {
  const before = paletteNamed(project, name);
  const after = change(before);
  if (JSON.stringify(after) === JSON.stringify(before)) return project;
  const fit = fitPalette(after);
  return { ...project, palettes: (project.palettes ?? []).map((each) => (each === before ? fit : each)) };
}

function fitPalette(palette: Palette): Palette {
  const parsed = Palette.safeParse(palette);
  if (parsed.success) return parsed.data;
  throw new CaravanError(
    "bad-number",
    t('palette "{name}"', { name: palette.name }),
    t("A palette has 1 to {mostColours} colours, each written as #rrggbb.", { mostColours: MOST_COLOURS }),
    t("Correct the colours."),
  );
}

/** Maps every piece of the project; unchanged objects stay the same. */
function withPieces(project: Project, change: (piece: Piece) => Piece): Project {
  const sources = project.sources.map((source) => {
    const frames = source.frames.map((frame) => {
      const pieces = frame.pieces?.map(change);
      return !pieces || pieces.every((piece, k) => piece === frame.pieces?.[k]) ? frame : { ...frame, pieces };
    });
    return frames.every((frame, k) => frame === source.frames[k]) ? source : { ...source, frames };
  });
  return { ...project, sources };
}
