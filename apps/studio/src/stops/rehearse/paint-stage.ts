/** Paints one moment of a rehearsal: backdrop, platforms, scenery, the figure, effects, and guides. */

import { wornLook } from "@caravan/core/art";
import { pointIn } from "@caravan/core/marks";
import {
  type Area,
  type FramePoint,
  type FrameRef,
  findFrame,
  frameSize,
  type MarkKind,
  originOf,
  type Project,
  type Stage,
} from "@caravan/core/model";
import { placeTurned } from "@caravan/core/parts";
import {
  bodyOf,
  boxesOf,
  effectAt,
  extraAt,
  frameOfState,
  hangingOnState,
  moved,
  outlinesOf,
  pointOf,
  type Rehearsal,
  type Setting,
  type Standing,
} from "@caravan/core/stage";
import { paintStill, stillOf } from "../../preview/draw-frame";
import { landscape, openCountry } from "../../preview/landscape";
import { mirrored, turned } from "../../preview/turned";
import { pictureNow } from "../../project/pictures";

export interface StageInks {
  readonly plain: string;
  readonly ink: string;
  readonly now: string;
  readonly zone: string;
}

export interface Aids {
  readonly marks: boolean;
  readonly origin: boolean;
  readonly zones: boolean;
  /** Names of events that came just now; none where they are not to be shown. */
  readonly events: readonly string[];
  /** The zone, platform or extra that is worked on. */
  readonly chosen: string | null;
}

/** The world position of the camera's top-left corner: whole pixels, never beyond the edges. */
export function cameraAt({ size, world, camera, start }: Stage, { x, y }: FramePoint): FramePoint {
  const eye = camera === "follows" ? { x, y } : start;
  const along = (middle: number, window: number, whole: number) => Math.round(Math.max(0, Math.min(whole - window, middle - window / 2)));
  return { x: along(eye.x, size.w, world.w), y: along(eye.y - size.h / 8, size.h, world.h) };
}

/** `zoom` is device pixels for each pixel of the game. */
export function paintMoment(
  context: CanvasRenderingContext2D,
  setting: Setting,
  rehearsal: Rehearsal,
  zoom: number,
  inks: StageInks,
  aids: Aids,
): void {
  const { project, stage } = setting;
  const at = rehearsal.run.now.at;
  const camera = cameraAt(stage, rehearsal.moving);
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.imageSmoothingEnabled = false;
  context.fillStyle = inks.plain;
  context.fillRect(0, 0, context.canvas.width, context.canvas.height);
  context.setTransform(zoom, 0, 0, zoom, -camera.x * zoom, -camera.y * zoom);
  paintBackdrop(context, project, stage);
  for (const platform of stage.platforms) paintPlatform(context, stage, platform);
  const figure = frameOfState(setting.clips, rehearsal.run.now);
  const standing = figure && { ...figure, x: rehearsal.moving.x, y: rehearsal.moving.y };
  const all: { readonly standing: Standing; readonly order: number }[] = [
    ...stage.extras.flatMap((each) => {
      const shown = extraAt(setting, each, at);
      return shown ? [{ standing: shown, order: shown.y }] : [];
    }),
    ...(standing ? [{ standing, order: standing.y + 0.5 }] : []),
    ...rehearsal.playing.flatMap((each) => {
      const shown = each.gone > at ? effectAt(setting, each, at) : null;
      return shown ? [{ standing: shown, order: Number.POSITIVE_INFINITY }] : [];
    }),
  ];
  // Seen from above, things further down are in front.
  if (stage.view === "above") all.sort((a, b) => a.order - b.order);
  const hanging = standing ? hangingOnState(setting, rehearsal.run.now) : [];
  for (const { standing: each } of all) {
    const parts = each === standing ? hanging : [];
    const paintParts = (front: boolean) => {
      for (const part of parts)
        if (part.front === front) {
          const { mirror, x, y, angle } = part;
          paintStanding(context, project, { frame: part.frame as FrameRef, mirror, x: each.x + x, y: each.y + y }, zoom, camera, angle);
        }
    };
    paintParts(false);
    paintStanding(context, project, each, zoom, camera);
    paintParts(true);
  }
  if (aids.zones)
    for (const zone of stage.zones)
      paintZone(context, zone.area, zone.name, rehearsal.inside.has(zone.name), aids.chosen === zone.name, zoom, inks);
  if (aids.marks) {
    for (const { standing: each } of all) paintMarksOf(context, project, each, zoom);
    const { area } = bodyOf(project, figure?.frame ?? null, figure?.mirror ?? false, stage.body);
    if (stage.body === null) outline(context, moved(area, rehearsal.moving), "#ffffff", zoom, [2, 3]);
  }
  for (const place of rehearsal.touching) {
    const pair = stage.hits[place];
    if (!pair) continue;
    // Contact on either side: a thick line, and the word beside the figure.
    for (const { standing: each } of all)
      for (const name of [pair.ours, pair.theirs]) {
        for (const box of boxesOf(project, each, name)) outline(context, box, "#ee8f76", zoom, []);
        for (const polygon of outlinesOf(project, each, name)) outlineAlong(context, polygon, "#ee8f76", zoom, []);
      }
  }
  const called = [...aids.events, ...(rehearsal.touching.size > 0 ? ["hit"] : [])];
  if (called.length > 0) {
    const top = bodyOf(project, figure?.frame ?? null, figure?.mirror ?? false, stage.body).area.y + rehearsal.moving.y;
    paintWords(context, called.join(", "), rehearsal.moving.x, top - 8 / zoom, zoom);
  }
  if (aids.origin) {
    context.fillStyle = inks.now;
    const line = 1 / zoom;
    if (stage.view === "side") context.fillRect(camera.x, stage.ground, stage.size.w, line * 2);
    const { x, y } = rehearsal.moving;
    context.fillRect(x - 4, y - line, 8, line * 2);
    context.fillRect(x - line, y - 4, line * 2, 8);
  }
}

function paintBackdrop(context: CanvasRenderingContext2D, project: Project, { backdrop, world, ground, view }: Stage): void {
  if (typeof backdrop === "object") {
    const source = project.sources.find(({ id }) => id === backdrop.source);
    const [first] = source?.pictures ?? [];
    const picture = source && first ? pictureNow(wornLook(project, source)) : undefined;
    if (picture) context.drawImage(picture.bitmap, 0, 0);
    return;
  }
  if (backdrop === "plain") {
    context.fillStyle = "rgb(128 128 128 / 0.25)";
    context.fillRect(0, ground, world.w, world.h - ground);
    return;
  }
  context.drawImage(view === "side" ? landscape(world.w, world.h, ground) : openCountry(world.w, world.h, ground), 0, 0);
}

function paintPlatform(context: CanvasRenderingContext2D, { view }: Stage, { x, y, w, h }: Area): void {
  context.fillStyle = "#8a6440";
  context.fillRect(x, y, w, h);
  context.fillStyle = view === "side" ? "#d9a766" : "#6f4f33";
  context.fillRect(x, y, w, Math.min(2, h));
}

/** A frame with its origin at its place, on whole pixels of the game. */
function paintStanding(
  context: CanvasRenderingContext2D,
  project: Project,
  { frame, mirror, x, y }: Standing,
  zoom: number,
  camera: FramePoint,
  angle = 0,
): void {
  const found = findFrame(project, frame);
  if (!found) return;
  const still = stillOf(project, found.source, found.frame);
  const whole = frameSize(found.source, found.frame);
  const { size, origin } = placeTurned({ size: whole, origin: originOf(found.source, found.frame) }, mirror, angle);
  const [left, top] = [Math.round(x - origin.x), Math.round(y - origin.y)];
  context.save();
  // In device pixels from here, so that each art pixel is a whole number of them.
  context.setTransform(1, 0, 0, 1, Math.round((left - camera.x) * zoom), Math.round((top - camera.y) * zoom));
  turned(context, { x: 0, y: 0, w: size.w * zoom, h: size.h * zoom }, angle, (from, down) =>
    mirrored(context, mirror, from, whole.w * zoom, (across) => paintStill(context, still, across, down, zoom)),
  );
  context.restore();
}

const DASHES: Readonly<Record<MarkKind["line"], readonly number[]>> = {
  solid: [],
  dashes: [4, 3],
  dots: [1, 2],
  "long and short": [6, 2, 2, 2],
};

function paintMarksOf(context: CanvasRenderingContext2D, project: Project, standing: Standing, zoom: number): void {
  for (const kind of project.marks) {
    if (kind.shape === "box")
      for (const box of boxesOf(project, standing, kind.name)) outline(context, box, "#ffffff", zoom, DASHES[kind.line]);
    else if (kind.shape === "outline")
      for (const polygon of outlinesOf(project, standing, kind.name)) outlineAlong(context, polygon, "#ffffff", zoom, DASHES[kind.line]);
    else if (hasPoint(project, standing.frame, kind)) {
      const { x, y } = pointOf(project, standing, kind.name);
      outline(context, { x: x - 1.5, y: y - 1.5, w: 3, h: 3 }, "#ffffff", zoom, []);
    }
  }
}

function hasPoint(project: Project, ref: FrameRef, kind: MarkKind): boolean {
  return pointIn(findFrame(project, ref)?.frame.marks, kind.name) !== undefined;
}

/** A light line with a dark one below it, visible on any art. */
function outline(context: CanvasRenderingContext2D, { x, y, w, h }: Area, colour: string, zoom: number, dashes: readonly number[]): void {
  stroked(context, colour, zoom, dashes, () => context.strokeRect(x, y, w, h));
}

function outlineAlong(
  context: CanvasRenderingContext2D,
  corners: readonly FramePoint[],
  colour: string,
  zoom: number,
  dashes: readonly number[],
): void {
  stroked(context, colour, zoom, dashes, () => {
    context.beginPath();
    for (const { x, y } of corners) context.lineTo(x, y);
    context.closePath();
    context.stroke();
  });
}

function stroked(context: CanvasRenderingContext2D, colour: string, zoom: number, dashes: readonly number[], stroke: () => void): void {
  const line = Math.max(1, devicePixelRatio) / zoom;
  context.lineWidth = line * 2.5;
  context.strokeStyle = "rgb(20 16 10 / 0.75)";
  context.setLineDash([]);
  stroke();
  context.lineWidth = line * 1.2;
  context.strokeStyle = colour;
  context.setLineDash(dashes.map((each) => each * line * 1.5));
  stroke();
  context.setLineDash([]);
}

/** Words in the middle above a place, light with a dark edge. */
function paintWords(context: CanvasRenderingContext2D, words: string, x: number, y: number, zoom: number): void {
  const size = (12 * Math.max(1, devicePixelRatio)) / zoom;
  context.font = `600 ${size}px "Atkinson Hyperlegible Next", system-ui, sans-serif`;
  context.textAlign = "center";
  context.lineWidth = size / 4;
  context.strokeStyle = "rgb(20 16 10 / 0.85)";
  context.strokeText(words, x, y);
  context.fillStyle = "#ffffff";
  context.fillText(words, x, y);
  context.textAlign = "start";
}

function paintZone(
  context: CanvasRenderingContext2D,
  area: Area,
  name: string,
  inside: boolean,
  chosen: boolean,
  zoom: number,
  inks: StageInks,
): void {
  context.globalAlpha = inside ? 0.28 : 0.12;
  context.fillStyle = chosen ? inks.now : inks.zone;
  context.fillRect(area.x, area.y, area.w, area.h);
  context.globalAlpha = 1;
  outline(context, area, chosen ? inks.now : inks.zone, zoom, [5, 3]);
  const size = (11 * Math.max(1, devicePixelRatio)) / zoom;
  context.font = `600 ${size}px "Atkinson Hyperlegible Next", system-ui, sans-serif`;
  context.lineWidth = size / 4;
  context.strokeStyle = "rgb(20 16 10 / 0.85)";
  context.strokeText(name, area.x, area.y - size / 3);
  context.fillStyle = "#ffffff";
  context.fillText(name, area.x, area.y - size / 3);
}

/** The frames that a stage can show, to preload their pictures. */
export function framesOfStage({ project, program, stage }: Setting): FrameRef[] {
  const names = new Set([
    ...program.rules.map(({ play }) => play),
    ...stage.effects.map(({ play }) => play),
    ...stage.extras.map(({ play }) => play),
  ]);
  const clips = new Set<string>(names);
  for (const action of project.actions) if (names.has(action.name)) for (const { clip } of Object.values(action.facings)) clips.add(clip);
  return [...new Set(project.clips.filter(({ name }) => clips.has(name)).flatMap(({ steps }) => steps.map(({ frame }) => frame)))];
}
