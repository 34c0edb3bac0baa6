/** Recolours drawn sheets: sets the palette that a source wears, and makes variants of a source in another palette. */
import {
  CaravanError,
  type Clip,
  type ClipName,
  counted,
  type FrameRef,
  fittedName,
  frameRef,
  freeName,
  isOfPieces,
  type Project,
  paletteNamed,
  type Source,
  type SourceId,
  sourceById,
} from "../model";
import { t } from "../words";
import { actionsInOtherColours } from "./actions-in-other-colours";
import { edit } from "./edit";
import { alsoTaken, setPaletteColours } from "./palettes";
import { freeSourceId } from "./source-id";
import { withSource } from "./with-source";

/** Which palette the pictures of a source wear; null for the colours they are drawn in. Throws `bad-call` for a source of pieces, `not-found`. */
export const setSourcePalette = edit(
  (project, id: SourceId, palette: string | null) =>
    palette === null
      ? t("colour {name} as it is drawn", { name: sourceById(project, id).name })
      : t("colour {name} with {palette}", { name: sourceById(project, id).name, palette }),
  (project, id, palette) => {
    const { palette: before, ...source } = sourceById(project, id);
    refuseOfPieces(source);
    if ((before ?? null) === palette) return project;
    if (palette !== null) paletteNamed(project, palette);
    return withSource(project, palette === null ? source : { ...source, palette });
  },
);

/**
 * Shows some colours of a source as others, by its palette or by a new one; the art does not change. Throws `bad-call` for a source of
 * pieces.
 */
export const drawAlike = edit(
  (project, id: SourceId, pairs: readonly (readonly [from: string, to: string])[]) =>
    pairs.length === 1
      ? t("show {colours} of {name} as another", { colours: counted(pairs.length, "colour"), name: sourceById(project, id).name })
      : t("show {colours} of {name} as others", { colours: counted(pairs.length, "colour"), name: sourceById(project, id).name }),
  (project, id, pairs): Project => {
    const source = sourceById(project, id);
    refuseOfPieces(source);
    if (pairs.length === 0) return project;
    const { palettes = [] } = project;
    const worn = palettes.find(({ name }) => name === source.palette);
    const base = palettes.find(({ name }) => name === worn?.of);
    if (worn && base) return pairs.reduce((made, [from, to]) => alike(made, worn.name, base.name, from, to), project);
    const taken = new Set<string>(palettes.map(({ name }) => name));
    const drawn = freeName(fittedName(t("{name} as drawn", { name: source.name }), 120) ?? t("as drawn"), taken, " ");
    const shown = freeName(fittedName(t("{name} as shown", { name: source.name }), 120) ?? t("as shown"), new Set([...taken, drawn]), " ");
    const made: Project = {
      ...project,
      palettes: [
        ...palettes,
        { name: drawn, colours: pairs.map(([from]) => from) },
        { name: shown, of: drawn, colours: pairs.map(([from]) => lastOf(pairs, from)) },
      ],
    };
    return withSource(made, { ...source, palette: shown });
  },
);

/** What a colour becomes where one pair follows another. */
function lastOf(pairs: readonly (readonly [string, string])[], from: string): string {
  const seen = new Set<string>();
  let colour = from;
  for (let next: string | undefined = from; next !== undefined && !seen.has(next); next = pairs.find(([each]) => each === next)?.[1]) {
    seen.add(next);
    colour = next;
  }
  return colour;
}

/** Adds a colour to the palette in use: like another that it contains, or by itself. */
function alike(project: Project, worn: string, base: string, from: string, to: string): Project {
  const there = paletteNamed(project, base).colours;
  if (there.includes(from)) {
    const place = there.indexOf(from);
    const becomes = there.includes(to) ? (paletteNamed(project, worn).colours[there.indexOf(to)] ?? to) : to;
    const colours = paletteNamed(project, worn).colours.map((colour, k) => (k === place ? becomes : colour));
    return setPaletteColours(project, worn, colours);
  }
  if (there.includes(to)) return alsoTaken(project, base, from, to);
  const others = (project.palettes ?? []).filter(({ of }) => of === base);
  return others.reduce(
    (made, { name, colours }) =>
      setPaletteColours(made, name, [...[...colours, ...there.slice(colours.length)].slice(0, there.length), to]),
    setPaletteColours(project, base, [...there, from]),
  );
}

/**
 * Makes a source with the same pictures, frames, names and marks in another palette; clips and actions that use only its frames are copied
 * too, all with the palette's name appended. Throws `bad-call` for a source of pieces and for a palette that replaces none, `not-found`.
 */
export const addSourceVariant = edit(
  (project, id: SourceId, palette: string) => t("make {name} in {palette}", { name: sourceById(project, id).name, palette }),
  (project, id, palette): Project => {
    const source = sourceById(project, id);
    refuseOfPieces(source);
    if (paletteNamed(project, palette).of === undefined)
      throw new CaravanError(
        "bad-call",
        t('palette "{palette}"', { palette }),
        t("It replaces no other palette, so nothing would change colour."),
        t("Choose what it replaces."),
      );
    const behind = (name: string, taken: Iterable<string>) => freeName(fittedName(`${name}-${palette}`, 120) ?? "variant", new Set(taken));
    const names = new Set(project.sources.flatMap((each) => each.frames.flatMap(({ name }) => name ?? [])));
    const frames = source.frames.map((frame) => {
      if (frame.name === undefined) return frame;
      const name = behind(frame.name, names);
      names.add(name);
      return { ...frame, name };
    });
    const twin: Source = {
      ...source,
      id: freeSourceId(project),
      name: behind(
        source.name,
        project.sources.map(({ name }) => name),
      ),
      palette,
      frames,
    };
    const at = project.sources.indexOf(source) + 1;
    let next: Project = { ...project, sources: project.sources.toSpliced(at, 0, twin) };
    const refs = new Map<FrameRef, FrameRef>(source.frames.map((frame) => [frameRef(source, frame), frameRef(twin, frame)]));
    const dressed = new Map<ClipName, ClipName>();
    for (const clip of project.clips) {
      if (clip.steps.length === 0 || !clip.steps.every(({ frame }) => refs.has(frame))) continue;
      const name = behind(
        clip.name,
        next.clips.map((each) => each.name),
      ) as ClipName;
      const made: Clip = { ...clip, name, steps: clip.steps.map((step) => ({ ...step, frame: refs.get(step.frame) as FrameRef })) };
      next = { ...next, clips: next.clips.toSpliced(next.clips.findIndex((each) => each.name === clip.name) + 1, 0, made) };
      dressed.set(clip.name, name);
    }
    return { ...next, actions: [...next.actions, ...actionsInOtherColours(next, palette, dressed)] };
  },
);

function refuseOfPieces(source: Pick<Source, "cut" | "name">): void {
  if (isOfPieces(source))
    throw new CaravanError(
      "bad-call",
      t('source "{name}"', { name: source.name }),
      t("Its frames are put together from pieces, which have their own palettes."),
      t("Colour the pieces at Frames."),
    );
}
