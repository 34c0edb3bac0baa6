/** Random edits of sources, frames, layers, palettes, pieces and marks. */
import { type FrameRef, type Source, STEADY_WAYS, sourceById } from "../model";
import { coverageOf, crop, scaled } from "../raster";
import { partedIntoTiles } from "../tiles";
import * as edits from ".";
import {
  action,
  BY_METADATA,
  cellCoverage,
  clearing,
  clip,
  coverage,
  type Dice,
  each,
  grid,
  keysOf,
  layerName,
  mark,
  name,
  ofPieces,
  paletteName,
  pick,
  picture,
  type RandomEdit,
  refs,
  sha256,
  sheet,
  source,
  told,
  toldOf,
} from "./random-choices.fixture";

/** The sheet at twice its size. */
const LARGE = coverageOf(scaled(sheet, 2, true));

/** Pictures of an animation, each with its time. */
const timed = (count: number, d: Dice) => Array.from({ length: count }, () => ({ ...picture, duration: 1000 * (1 + d(9)) }));

export const EDITS_OF_ART: Readonly<Record<string, RandomEdit>> = {
  add: (p, d) => edits.addSources(p, [{ fileName: `${name(d)}.png`, ...picture }]),
  series: (p, d) => edits.takeIn(p, [{ name: name(d), pictures: [picture, picture, picture], coverages: [coverage, coverage, coverage] }]),
  animation: (p, d) => {
    const pictures = timed(2 + d(3), d);
    const steps = pictures.map(({ duration }, frame) => ({ frame, duration }));
    const clips = [{ name: name(d), steps, playback: "loop", times: 0 } as const];
    return edits.takeIn(p, [{ name: name(d), pictures, coverages: pictures.map(() => coverage), clips }]);
  },
  animationAgain: (p, d) => {
    const animated = pick(
      p.sources.filter(({ pictures }) => pictures.length > 1 && pictures.every(({ duration }) => duration !== undefined)),
      d,
    );
    if (!animated) return p;
    const again =
      d(2) === 0 ? timed(animated.pictures.length, d) : timed(2 + d(3), d).map((each) => ({ ...each, sha256: String(d(2)).repeat(64) }));
    return edits.refreshSource(
      p,
      animated.id,
      again,
      again.map(() => coverage),
    );
  },
  numbered: (p, d) =>
    edits.takeIn(
      p,
      [
        {
          name: name(d),
          pictures: [1, 2, 3].map((k) => ({ ...picture, number: k * (1 + d(9)) + k })),
          coverages: [coverage, coverage, coverage],
          clips: [{ ref: "one", name: name(d), steps: [{ frame: 0, duration: 1000 }], playback: "loop", times: 0 }],
        },
      ],
      [{ name: name(d), ways: 4, facings: { e: "one" }, mirror: d(2) === 0, namesClips: d(2) === 0 }],
    ),
  cut: (p, d) => edits.cutSource(p, source(p, d).id, grid(d), coverage),
  cutThereAndBack: (p, d) => {
    const before = source(p, d);
    const there = edits.cutSource(p, before.id, grid(d), coverage);
    const lost = edits.framesLost(before, sourceById(there, before.id));
    const kind = pick(p.marks, d)?.name;
    const meanwhile =
      kind && d(3) === 0 ? edits.removeMarkKind(there, kind) : d(4) === 0 ? edits.setSourceScale(there, before.id, 2) : there;
    const cut = before.cut && d(2) === 0 ? before.cut : grid(d);
    return edits.cutSource(meanwhile, before.id, cut, coverage, { lost, before, isDecided: () => d(2) === 0 });
  },
  someStills: (p, d) => {
    const series = source(p, d);
    const stills = series.pictures.slice(d(2), 1 + d(3)).map(({ file: _, ...each }) => ({ ...each, sha256: String(d(2)).repeat(64) }));
    const all = edits.withOtherStills(series, stills);
    return all
      ? edits.refreshSource(
          p,
          series.id,
          all,
          all.map(() => coverage),
        )
      : p;
  },
  resized: (p, d) => {
    const { id, pictures } = source(p, d);
    const by = pictures[0]?.width === sheet.width ? 2 : 0.5;
    const drawn = by === 2 ? LARGE : coverage;
    const larger = pictures.map(({ file: _, width, height, ...each }) => ({
      ...each,
      width: width * by,
      height: height * by,
      sha256: String(by === 2 ? 2 : d(2)).repeat(64),
    }));
    return edits.takeResizedArt(
      p,
      id,
      larger,
      larger.map(() => drawn),
      by,
    );
  },
  outlines: (p, d) => edits.cutSource(p, source(p, d).id, { by: "outlines", joinPx: d(4), leastPx: 1 + d(3), level: d(2) === 0 }, coverage),
  draw: (p, d) => edits.drawFrames(p, source(p, d).id, [{ x: d(20), y: d(20), w: 1 + d(12), h: 1 + d(10) }]),
  place: (p, d) => edits.placeFrames(p, new Map(refs(p, d).map((ref) => [ref, { x: d(20), y: d(20), w: 1 + d(12), h: 1 + d(10) }]))),
  equal: (p, d) => edits.makeEqual(p, refs(p, d), (["feet", "middle", "origin"] as const)[d(3)] ?? "feet"),
  refresh: (p, d) => edits.refreshSource(p, source(p, d).id, [{ ...picture, sha256: String(d(2)).repeat(64) }], [coverage]),
  refreshOn: (p, d) =>
    edits.refreshSource(p, source(p, d).id, [{ ...picture, sha256: String(d(2)).repeat(64) }], [coverage], undefined, grid(d)),
  scale: (p, d) => edits.setSourceScale(p, source(p, d).id, [1, 2, 3, 0.5, 1 / 3, 0.75][d(6)] ?? 1),
  perUnit: (p, d) => edits.setPixelsPerUnit(p, d(3) === 0 ? null : 8 * (1 + d(4))),
  renameSource: (p, d) => edits.renameSource(p, source(p, d).id, name(d)),
  layPictures: (p, d) =>
    edits.layPictures(p, new Map([[String(d(2)).repeat(64), pick(["art/a.png", "assets/b.png", "../c.png"], d) as string]])),
  followFiles: (p, d) =>
    edits.followFiles(p, new Map([[source(p, d).pictures[0]?.file ?? "none", pick(["art/a.png", "Art/A.png", "../c.png"], d) as string]])),
  removeSource: (p, d) => (p.sources.length > 1 ? edits.removeSource(p, source(p, d).id) : p),
  nameFrames: (p, d) => {
    const { id, frames } = source(p, d);
    return edits.nameFrames(
      p,
      id,
      frames.slice(0, d(5)).map(({ key }) => key),
      { text: `${name(d)}{n}{row}`, start: 0, step: 1, padding: d(4) },
    );
  },
  drop: (p, d) => edits.dropFrames(p, refs(p, d)),
  restore: (p, d) => edits.restoreFrames(p, refs(p, d)),
  mark: (p, d) => edits.addMarkKind(p, d(2) === 0 ? "box" : "point", name(d)),
  renameMark: (p, d) => edits.renameMarkKind(p, mark(p, d), name(d)),
  removeMark: (p, d) => edits.removeMarkKind(p, mark(p, d)),
  useMark: (p, d) => edits.setBoxUse(p, mark(p, d), ([null, "solid", "hurt", "hit", "trigger"] as const)[d(5)] ?? null),
  box: (p, d) => {
    const [at, ...others] = refs(p, d);
    const kind = p.marks.filter(({ shape }) => shape === "box")[d(3)];
    return at && kind ? edits.addBox(p, "it", [at, ...others], kind.name, at, { x: d(9) - 3, y: d(9), w: 1 + d(6), h: 1 + d(6) }) : p;
  },
  point: (p, d) => {
    const [at, ...others] = refs(p, d);
    const kind = p.marks.filter(({ shape }) => shape === "point")[d(3)];
    return at && kind ? edits.putPoint(p, "it", [at, ...others], kind.name, at, { x: d(9) / 2, y: d(9) / 2 }) : p;
  },
  angle: (p, d) => {
    const [at, ...others] = refs(p, d);
    const kind = p.marks.filter(({ shape }) => shape === "point")[d(3)];
    return at && kind ? edits.turnPoint(p, "it", [at, ...others], kind.name, at, d(4) === 0 ? null : d(1440) / 2 - 360) : p;
  },
  fillPoint: (p, d) => edits.fillPoint(p, clip(p, d), mark(p, d)),
  acrossMarks: (p, d) => edits.copyMarksMirrored(p, mark(p, d), clip(p, d), clip(p, d)),
  removeLayer: (p, d) => {
    const { id, pictures } = source(p, d);
    return edits.removeLayer(
      p,
      id,
      layerName(p, d),
      pictures.map(() => coverage),
    );
  },
  layer: (p, d) => {
    const { id, pictures } = source(p, d);
    const blend = (["normal", "add", "multiply"] as const)[d(3)] ?? "normal";
    const own = pictures.map(({ sha256: hash, width, height }) => ({ sha256: hash, width, height }));
    return edits.addLayer(
      p,
      id,
      { name: name(d), blend, pictures: own },
      pictures.map(() => coverage),
    );
  },
  renameLayer: (p, d) => edits.renameLayer(p, layerName(p, d), name(d)),
  blendLayer: (p, d) => edits.blendLayer(p, layerName(p, d), d(2) === 0 ? "add" : "multiply"),
  moveLayer: (p, d) => edits.moveLayer(p, source(p, d).id, layerName(p, d), d(2) === 0 ? 1 : -1),
  sourceOrigin: (p, d) => edits.setSourceOrigin(p, source(p, d).id, d(4) === 0 ? null : { x: d(20) / 2, y: d(20) / 2 }),
  origins: (p, d) => edits.placeOrigins(p, "it", new Map(refs(p, d).map((ref) => [ref, { x: d(20) / 2, y: d(20) / 2 }]))),
  nudge: (p, d) => edits.nudgeOrigins(p, "it", refs(p, d), { x: d(5) - 2, y: 0.5 }),
  piecesSource: (p, d) => edits.addPiecesSource(p, name(d), { w: 8 + d(30), h: 8 + d(30) }),
  pieceFrame: (p, d) => edits.addFrameOfPieces(p, ofPieces(p, d), d(2) === 0),
  canvas: (p, d) => edits.setCanvas(p, source(p, d).id, { w: d(40), h: 1 + d(40) }),
  put: (p, d) => {
    const palette = d(2) === 0 ? {} : { palette: paletteName(p, d) };
    return edits.putPieces(
      p,
      ofPieces(p, d),
      refs(p, d).map((of) => ({ of, x: d(30) - 9, y: d(30) - 9, ...palette })),
      d(2) === 0 ? 0 : null,
    );
  },
  shift: (p, d) => edits.movePieces(p, ofPieces(p, d), [d(4), d(4)], { x: d(5) - 2, y: d(5) - 2 }),
  flip: (p, d) => edits.flipPieces(p, ofPieces(p, d), [d(4)], d(2) === 0 ? "across" : "down"),
  mirrorPieces: (p, d) => edits.mirrorPieces(p, ofPieces(p, d), [d(4), d(4)]),
  group: (p, d) => edits.groupPieces(p, ofPieces(p, d), [d(4), d(4)]),
  ungroup: (p, d) => edits.ungroupPieces(p, ofPieces(p, d), [d(4)]),
  hide: (p, d) => edits.hidePieces(p, ofPieces(p, d), [d(4)], d(2) === 0),
  takeOff: (p, d) => edits.removePieces(p, ofPieces(p, d), [d(6)]),
  exchange: (p, d) => edits.exchangePieces(p, ofPieces(p, d), [d(4)], refs(p, d)[0] ?? ("s1/c0r0" as FrameRef)),
  exchangeAll: (p, d) => edits.exchangeEverywhere(p, [ofPieces(p, d)], "s1/c0r0" as FrameRef, "s1/c1r0" as FrameRef),
  moveAllOf: (p, d) => edits.moveEverywhere(p, [ofPieces(p, d)], "s1/c0r0" as FrameRef, { x: 1, y: d(3) }),
  colour: (p, d) => edits.colourPieces(p, ofPieces(p, d), [d(4)], d(3) === 0 ? null : paletteName(p, d)),
  colourAll: (p, d) => edits.colourEverywhere(p, [ofPieces(p, d)], null, paletteName(p, d)),
  restack: (p, d) => edits.restackPieces(p, ofPieces(p, d), [d(4), d(4)], (["up", "down", "top", "bottom"] as const)[d(4)] ?? "up"),
  stack: (p, d) => edits.placeInStack(p, ofPieces(p, d), [d(4)], d(5)),
  palette: (p, d) =>
    edits.addPalette(p, { name: name(d), colours: ["#000000", "#ffffff"].slice(d(2)), ...(d(2) === 0 ? {} : { of: paletteName(p, d) }) }),
  paletteColours: (p, d) => edits.setPaletteColours(p, paletteName(p, d), ["#0a0b0c", "#ffffff"].slice(d(3))),
  paletteOf: (p, d) => edits.setPaletteOf(p, paletteName(p, d), d(3) === 0 ? null : paletteName(p, d)),
  renamePalette: (p, d) => edits.renamePalette(p, paletteName(p, d), name(d)),
  sourcePalette: (p, d) => edits.setSourcePalette(p, source(p, d).id, d(3) === 0 ? null : paletteName(p, d)),
  sourceVariant: (p, d) => edits.addSourceVariant(p, source(p, d).id, paletteName(p, d)),
  removePalette: (p, d) => edits.removePalette(p, paletteName(p, d)),
  setClearing: (p, d) => {
    const { id, pictures } = source(p, d);
    return edits.setClearing(
      p,
      id,
      clearing(d),
      pictures.map(() => coverage),
    );
  },
  setLayerClearing: (p, d) => {
    const { id, pictures } = source(p, d);
    return edits.setLayerClearing(
      p,
      id,
      layerName(p, d),
      clearing(d),
      pictures.map(() => coverage),
    );
  },
  cutByMetadata: (p, d) => edits.cutByMetadata(p, source(p, d).id, BY_METADATA, told(d), d(2) === 0 ? null : told(d)),
  clipsAsTold: (p, d) => {
    const of = source(p, d);
    const now = toldOf(p, of, d);
    const before = d(4) === 0 ? null : toldOf(p, of, d);
    const cut = edits.cutByMetadata(p, of.id, BY_METADATA, now.frames, before?.frames);
    const choices = { add: pick(["new", "all", "none"] as const, d) ?? "new", removeGone: d(2) === 0 };
    return edits.withClipsAsTold(p, cut, of.id, now, before, choices).project;
  },
  refreshByMetadata: (p, d) =>
    edits.refreshByMetadata(p, source(p, d).id, { ...picture, sha256: String(d(2)).repeat(64) }, BY_METADATA, told(d), told(d)),
  restoreCut: (p, d) => {
    const { id } = source(p, d);
    const other = edits.cutSource(p, id, grid(d), coverage);
    return edits.restoreCut(p, id, other.sources.find((made) => made.id === id) as Source);
  },
  renameFrame: (p, d) => edits.renameFrame(p, refs(p, d)[0] ?? ("s1/none" as FrameRef), d(4) === 0 ? "" : name(d)),
  removeFrames: (p, d) => edits.removeFrames(p, refs(p, d)),
  moveFrames: (p, d) => {
    const from = source(p, d);
    return edits.moveFrames(p, from.id, keysOf(from, d), d(12));
  },
  orderFrames: (p, d) => edits.orderFrames(p, source(p, d).id, (["position", "name", "reverse"] as const)[d(3)] ?? "name"),
  keepFirstOf: (p, d) => edits.keepFirstOf(p, [refs(p, d), refs(p, d)]),
  mirrorInstead: (p, d) => {
    const [a, b, c, e] = [...refs(p, d), ...refs(p, d)];
    return a && b && c && e
      ? edits.mirrorInstead(p, [
          [a, b],
          [c, e],
        ])
      : p;
  },
  removeFrameEverywhere: (p, d) => edits.removeFrameEverywhere(p, refs(p, d)[0] ?? ("s1/none" as FrameRef)),
  drawAlike: (p, d) => edits.drawAlike(p, source(p, d).id, [["#000000", pick(["#ffffff", "#0a0b0c", "#123456"], d) as string]]),
  alsoTaken: (p, d) => edits.alsoTaken(p, paletteName(p, d), pick(["#010101", "#ffffff", "red"], d) as string, "#ffffff"),
  mergePieces: (p, d) =>
    edits.mergePieces(p, [ofPieces(p, d)], "s1/c0r0" as FrameRef, "s1/c1r0" as FrameRef, ([undefined, "across", "both"] as const)[d(3)]),
  fromTiles: (p, d) => {
    const { id, cut } = source(p, d);
    if (cut?.by === "pieces") return p;
    const frames = edits.framesToPart(sourceById(p, id)).map(({ rect }) => crop(sheet, rect));
    return edits.putTogetherFromTiles(p, id, partedIntoTiles(frames, { w: 4, h: 5 }));
  },
  freezeMirror: (p, d) => {
    const [named, facing] = [action(p, d), (["e", "s", "w", "n"] as const)[d(4)] ?? "w"];
    const mirrored = edits
      .framesToMirror(p, named, facing)
      .map((frame) => ({ frame, sha256, width: 8, height: 10, coverage: cellCoverage }));
    return edits.freezeMirror(p, named, facing, mirrored);
  },
  outline: (p, d) => edits.addMarkKind(p, "outline", name(d)),
  setTrace: (p, d) =>
    edits.setTrace(p, mark(p, d), d(3) === 0 ? null : { withinPx: d(5), corners: 3 + d(9), convex: d(2) === 0, growPx: d(5) - 2 }),
  steadyOutline: (p, d) =>
    edits.steadyOutline(p, mark(p, d), d(2) === 0 ? clip(p, d) : action(p, d), ([null, ...STEADY_WAYS] as const)[d(3)] ?? null),
  setOutlines: (p, d) => {
    const [at, ...others] = refs(p, d);
    const kind = p.marks.filter(({ shape }) => shape === "outline")[d(2)];
    const [w, h] = [1 + d(9), 1 + d(9)];
    const around = [
      { x: 0, y: 0 },
      { x: w, y: 0 },
      { x: w, y: h },
      { x: d(3), y: h },
    ];
    return at && kind
      ? edits.setOutlines(p, "it", [at, ...others], kind.name, at, ([null, [], [around], [around, around]] as const)[d(4)] ?? null)
      : p;
  },
  setMarkLook: (p, d) =>
    edits.setMarkLook(p, mark(p, d), d(2) === 0 ? { letter: pick(["a", "7", "ab", ""], d) as string } : { line: "dashes" as const }),
  setBoxes: (p, d) =>
    edits.setBoxes(
      p,
      "it",
      mark(p, d),
      each(refs(p, d), () => Array.from({ length: d(3) }, () => ({ x: d(5), y: d(5), w: 1 + d(4), h: 1 }))),
    ),
  changeBox: (p, d) => edits.changeBox(p, "it", refs(p, d), mark(p, d), d(3), d(2) === 0 ? { x: d(5) - 2 } : { w: d(5) - 2 }),
  removeBox: (p, d) => edits.removeBox(p, "it", refs(p, d), mark(p, d), d(3)),
  clearMarks: (p, d) => edits.clearMarks(p, "it", refs(p, d), mark(p, d)),
  forgetOrigins: (p, d) => edits.forgetOrigins(p, "it", refs(p, d)),
  steadyClip: (p, d) =>
    edits.steadyClip(
      p,
      clip(p, d),
      each(refs(p, d), () => ({ x: d(20) / 2, y: d(20) / 2 })),
    ),
};
