/** Findings about assembled frames: missing pieces, a palette unlike its neighbours', pieces that are slightly off. */
import { colourPieces, dropFrames, keepFirstOf, movePieces, putPieces, removePieces, setPaletteColours, setSourcePalette } from "../edit";
import {
  type Clip,
  counted,
  type Frame,
  type FrameRef,
  findFrame,
  frameName,
  frameRef,
  isOfPieces,
  type Piece,
  type Project,
  type Source,
} from "../model";
import { t } from "../words";
import { type Finding, type Mend, namingSteps } from "./finding";

/** Cost: O(pieces + steps × pieces). */
export function pieceFindings(project: Project): Finding[] {
  const sources = project.sources.filter(isOfPieces);
  return [
    ...paletteLengths(project),
    ...project.sources.flatMap((source) => gonePaletteOfSource(project, source)),
    ...sources.flatMap((source) =>
      source.frames.flatMap((frame) =>
        frame.dropped ? [] : [...gonePieces(project, source, frame), ...gonePalettes(project, source, frame), ...offGrid(source, frame)],
      ),
    ),
    ...(sources.length === 0 ? [] : project.clips.flatMap((clip) => alongClip(project, clip))),
    ...sources.flatMap((source) => equalFrames(source)),
    ...unusedPieces(project, sources),
  ];
}

type Told = Pick<Finding, "code" | "severity" | "message" | "mend" | "otherMends">;

function at(source: Source, frame: Frame, told: Told): Finding {
  return { where: frameName(source, frame), place: { stop: "frames", frame: frameRef(source, frame) }, ...told };
}

const placesOf = (frame: Frame, isMeant: (piece: Piece) => boolean): number[] =>
  (frame.pieces ?? []).flatMap((piece, place) => (isMeant(piece) ? [place] : []));

function gonePieces(project: Project, source: Source, frame: Frame): Finding[] {
  const places = placesOf(frame, ({ of }) => {
    const found = findFrame(project, of);
    return !found || isOfPieces(found.source);
  });
  if (places.length === 0) return [];
  const [first] = places.map((place) => frame.pieces?.[place]?.of as FrameRef);
  const is = findFrame(project, first as FrameRef) ? t("is put together itself") : t("no longer exists");
  return [
    at(source, frame, {
      code: "piece-gone",
      severity: "warning",
      message: t("{pieces} of it cannot be drawn: {first} {is}. A striped box stands for it.", {
        pieces: counted(places.length, "piece"),
        first: first ?? "",
        is,
      }),
      mend: {
        label: places.length === 1 ? t("Remove it") : t("Remove them"),
        apply: (now) => removePieces(now, frameRef(source, frame), places),
      },
    }),
  ];
}

/** Palettes that exist and whose replaced palette exists. */
function working({ palettes = [] }: Project): ReadonlySet<string> {
  return new Set(palettes.filter(({ of }) => of === undefined || palettes.some(({ name }) => name === of)).map(({ name }) => name));
}

function gonePaletteOfSource(project: Project, { id, name, palette }: Source): Finding[] {
  if (palette === undefined || working(project).has(palette)) return [];
  const why = project.palettes?.some((each) => each.name === palette) ? t("replaces one that no longer exists") : t("no longer exists");
  return [
    {
      code: "palette-gone",
      severity: "warning",
      where: t('source "{name}"', { name }),
      message: t("The palette {palette} {why}, so its pictures keep the colours as drawn.", { palette, why }),
      place: { stop: "sources", source: id },
      mend: { label: t("Keep them as drawn"), apply: (now) => setSourcePalette(now, id, null) },
    },
  ];
}

function gonePalettes(project: Project, source: Source, frame: Frame): Finding[] {
  const { palettes = [] } = project;
  const works = working(project);
  const places = placesOf(frame, ({ palette }) => palette !== undefined && !works.has(palette));
  if (places.length === 0) return [];
  const name = frame.pieces?.[places[0] as number]?.palette as string;
  const why = palettes.some((each) => each.name === name) ? t("replaces one that no longer exists") : t("no longer exists");
  return [
    at(source, frame, {
      code: "palette-gone",
      severity: "warning",
      message:
        places.length === 1
          ? t("The palette {name} {why}, so {pieces} of it wears its own colours.", { name, why, pieces: counted(places.length, "piece") })
          : t("The palette {name} {why}, so {pieces} of it wear their own colours.", {
              name,
              why,
              pieces: counted(places.length, "piece"),
            }),
      mend: { label: t("Wear own colours"), apply: (now) => colourPieces(now, frameRef(source, frame), places, null) },
    }),
  ];
}

function paletteLengths({ palettes = [], sources }: Project): Finding[] {
  return palettes.flatMap((palette): Finding[] => {
    const base = palettes.find(({ name }) => name === palette.of);
    if (!base || base === palette || base.colours.length === palette.colours.length) return [];
    const worn = sources.filter(isOfPieces).flatMap((source) => source.frames.map((frame) => ({ source, frame })));
    const [first] = worn.filter(({ frame }) => frame.pieces?.some((piece) => piece.palette === palette.name));
    const lacking = base.colours.slice(palette.colours.length);
    return [
      {
        code: "palette-length",
        severity: "warning",
        where: t('palette "{name}"', { name: palette.name }),
        message: t("It has {colours} for the {wanted} of {name}: colours without a counterpart stay as they are.", {
          colours: counted(palette.colours.length, "colour"),
          wanted: base.colours.length,
          name: base.name,
        }),
        place: first ? { stop: "frames", frame: frameRef(first.source, first.frame) } : { stop: "sources" },
        mend:
          lacking.length > 0
            ? { label: t("Fill it in"), apply: (now) => setPaletteColours(now, palette.name, [...palette.colours, ...lacking]) }
            : {
                label: t("Shorten it"),
                apply: (now) => setPaletteColours(now, palette.name, palette.colours.slice(0, base.colours.length)),
              },
      },
    ];
  });
}

/** The grid that people lay pieces on, in px. */
const GRID = 8;

/** One piece a pixel off the grid of all others is a slip. */
function offGrid(source: Source, frame: Frame): Finding[] {
  const pieces = frame.pieces ?? [];
  if (pieces.length < 3) return [];
  const off = (along: number) => {
    const rest = ((along % GRID) + GRID) % GRID;
    return rest === 1 ? 1 : rest === GRID - 1 ? -1 : rest === 0 ? 0 : null;
  };
  const places = placesOf(frame, ({ x, y }) => off(x) !== 0 || off(y) !== 0);
  const [place] = places;
  const piece = place === undefined ? undefined : pieces[place];
  if (places.length !== 1 || place === undefined || !piece) return [];
  const [dx, dy] = [off(piece.x), off(piece.y)];
  if (dx === null || dy === null) return [];
  return [
    at(source, frame, {
      code: "piece-off-grid",
      severity: "note",
      message: t("One of its {pieces} pieces lies a pixel off the grid of {grid} px of the others.", { pieces: pieces.length, grid: GRID }),
      mend: { label: t("Align it to the grid"), apply: (now) => movePieces(now, frameRef(source, frame), [place], { x: -dx, y: -dy }) },
    }),
  ];
}

/** Steps that wear another palette than both their neighbours, and pieces that are in every step but one. */
function alongClip(project: Project, clip: Clip): Finding[] {
  const placed = clip.steps.map(({ frame }) => findFrame(project, frame));
  if (placed.length < 3 || !placed.every((each) => each?.frame.pieces)) return [];
  const frames = placed.flatMap((each) => (each ? [each] : []));
  const found: Finding[] = [];
  const pieces = new Set(frames.flatMap(({ frame }) => (frame.pieces ?? []).map(({ of }) => of)));
  for (const of of pieces) {
    const worn = frames.map(({ frame }) => {
      const all = [...new Set((frame.pieces ?? []).filter((piece) => piece.of === of).map(({ palette }) => palette ?? null))];
      return all.length === 1 ? { palette: all[0] as string | null } : null;
    });
    const there = frames.map(({ frame }) => frame.pieces?.some((piece) => piece.of === of) === true);
    const lacking = there.flatMap((each, step) => (each ? [] : [step]));
    if (lacking.length === 1 && frames.length >= 4) {
      const { source, frame } = frames[lacking[0] as number] as (typeof frames)[number];
      found.push(
        at(source, frame, {
          code: "piece-in-all-but-one",
          severity: "note",
          ...namingSteps((named) =>
            t("{name} is in every step of {clip} but {lacking}.", { name: nameOf(project, of), clip: clip.name, lacking: named(lacking) }),
          ),
          mend: asBefore(frames, lacking[0] as number, of),
        }),
      );
    }
    for (const [step, { source, frame }] of frames.entries()) {
      const [before, here, after] = [worn[(step + frames.length - 1) % frames.length], worn[step], worn[(step + 1) % frames.length]];
      if (!before || !here || !after || before.palette !== after.palette || here.palette === before.palette) continue;
      const places = placesOf(frame, (piece) => piece.of === of);
      found.push(
        at(source, frame, {
          code: "odd-palette",
          severity: "warning",
          ...namingSteps((named) =>
            t("{name} wears {palette} in {steps} of {clip}, and {other} before and after.", {
              name: nameOf(project, of),
              palette: here.palette ?? t("its own colours"),
              steps: named([step]),
              clip: clip.name,
              other: before.palette ?? t("its own colours"),
            }),
          ),
          mend: {
            label: before.palette === null ? t("Wear own colours here too") : t("Wear {palette} here too", { palette: before.palette }),
            apply: (now) => colourPieces(now, frameRef(source, frame), places, before.palette),
          },
        }),
      );
    }
  }
  return [...found, ...oddAmongOthers(project, clip, frames)];
}

/** Pieces missing in the neighbouring steps, whose palette differs from those worn there for the same colours. */
function oddAmongOthers({ palettes = [] }: Project, clip: Clip, frames: readonly { source: Source; frame: Frame }[]): Finding[] {
  const standsFor = new Map(palettes.map(({ name, of }) => [name, of ?? name]));
  const wornFor = ({ frame }: { frame: Frame }, base: string) =>
    new Set((frame.pieces ?? []).flatMap(({ palette }) => (palette !== undefined && standsFor.get(palette) === base ? [palette] : [])));
  return frames.flatMap((here, step) => {
    const around = [frames.at(step - 1), frames[(step + 1) % frames.length]] as (typeof here)[];
    const isAround = (of: FrameRef) => around.every(({ frame }) => frame.pieces?.some((piece) => piece.of === of));
    const lone = (here.frame.pieces ?? []).flatMap(({ of, palette }) => (palette === undefined || isAround(of) ? [] : [palette]));
    return [...new Set(lone)].flatMap((palette): Finding[] => {
      const base = standsFor.get(palette);
      const [before, after] = around.map((each) => [...(base === undefined ? [] : wornFor(each, base))]);
      const [worn] = before ?? [];
      if (worn === undefined || before?.length !== 1 || after?.length !== 1 || after[0] !== worn || worn === palette) return [];
      const places = placesOf(here.frame, (piece) => piece.palette === palette && !isAround(piece.of));
      return [
        at(here.source, here.frame, {
          code: "odd-palette",
          severity: "warning",
          ...namingSteps((named) =>
            places.length === 1
              ? t("{pieces} of it wears {palette} in {step} of {name}, and {worn} is worn before and after.", {
                  pieces: counted(places.length, "piece"),
                  palette,
                  step: named([step]),
                  name: clip.name,
                  worn,
                })
              : t("{pieces} of it wear {palette} in {step} of {name}, and {worn} is worn before and after.", {
                  pieces: counted(places.length, "piece"),
                  palette,
                  step: named([step]),
                  name: clip.name,
                  worn,
                }),
          ),
          mend: {
            label: t("Wear {worn} here too", { worn }),
            apply: (now) => colourPieces(now, frameRef(here.source, here.frame), places, worn),
          },
        }),
      ];
    });
  });
}

/** Moves a piece to its place in the previous step, at the same height in the stack. */
function asBefore(frames: readonly { source: Source; frame: Frame }[], step: number, of: FrameRef): Mend {
  const before = frames.at(step - 1) as (typeof frames)[number];
  const here = frames[step] as (typeof frames)[number];
  const places = placesOf(before.frame, (piece) => piece.of === of);
  const pieces = places.flatMap((place) => before.frame.pieces?.[place] ?? []);
  return {
    label: t("Place it as in the previous step"),
    apply: (now) => putPieces(now, frameRef(here.source, here.frame), pieces, Math.min(places[0] ?? 0, here.frame.pieces?.length ?? 0)),
  };
}

function nameOf(project: Project, ref: FrameRef): string {
  const found = findFrame(project, ref);
  return found ? frameName(found.source, found.frame) : ref;
}

function equalFrames(source: Source): Finding[] {
  const groups = new Map<string, Frame[]>();
  for (const frame of source.frames) {
    if (frame.dropped || !frame.pieces?.length) continue;
    const key = JSON.stringify(frame.pieces.filter(({ hidden }) => !hidden));
    groups.set(key, [...(groups.get(key) ?? []), frame]);
  }
  return [...groups.values()].flatMap((frames): Finding[] => {
    const [first, ...others] = frames;
    if (!first || others.length === 0) return [];
    return [
      at(source, first, {
        code: "equal-frames-of-pieces",
        severity: "note",
        message:
          others.length === 1
            ? t("{others} is put together the same way.", { others: others.map((frame) => frameName(source, frame)).join(", ") })
            : t("{others} are put together the same way.", { others: others.map((frame) => frameName(source, frame)).join(", ") }),
        mend: { label: t("Use this one for all"), apply: (now) => keepFirstOf(now, [frames.map((frame) => frameRef(source, frame))]) },
      }),
    ];
  });
}

/** Unused frames of sources that pieces come from: on no canvas and in no clip. */
function unusedPieces(project: Project, sources: readonly Source[]): Finding[] {
  if (sources.length === 0) return [];
  const pieces = new Set<FrameRef>(sources.flatMap(({ frames }) => frames.flatMap(({ pieces = [] }) => pieces.map(({ of }) => of))));
  const used = new Set(pieces);
  for (const { steps } of project.clips) for (const { frame } of steps) used.add(frame);
  const from = new Set([...used].map((ref) => ref.slice(0, ref.indexOf("/"))));
  return project.sources.flatMap((source): Finding[] => {
    if (isOfPieces(source) || !from.has(source.id) || !source.frames.some((frame) => pieces.has(frameRef(source, frame)))) return [];
    const idle = source.frames.filter((frame) => !frame.dropped && !frame.empty && !used.has(frameRef(source, frame)));
    const [first] = idle;
    if (!first) return [];
    return [
      {
        code: "unused-pieces",
        severity: "note",
        where: t('source "{name}"', { name: source.name }),
        message: t("{pieces} on no frame.", { pieces: counted(idle.length, "piece of it lies", "pieces of it lie") }),
        place: { stop: "frames", frame: frameRef(source, first) },
        mend: {
          label: idle.length === 1 ? t("Drop it") : t("Drop them"),
          apply: (now) =>
            dropFrames(
              now,
              idle.map((frame) => frameRef(source, frame)),
            ),
        },
      },
    ];
  });
}
