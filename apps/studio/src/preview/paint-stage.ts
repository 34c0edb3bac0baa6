/** Paints the stage at a given time: ground, ghosts, figure, origin. Positions come from stage-scene.ts. */
import type { FramePoint, Micros } from "@caravan/core/model";
import { placeTurned } from "@caravan/core/parts";
import { paintStill } from "./draw-frame";
import { ghostAlpha, ghostPicture, ghostsAround } from "./ghosts";
import type { HangingPart } from "./hanging";
import { landscape } from "./landscape";
import type { ShownMarks } from "./marks-scene";
import { paintMarks } from "./paint-marks";
import { type PlayerSettings, timelineOfPlaying } from "./player-state";
import type { PlayedFrame, Playing } from "./playing";
import type { StageInks } from "./stage-inks";
import { anchorOf, frameOnStage, type HeldStill, type StageScene } from "./stage-scene";
import { mirrored, turned } from "./turned";

/** The part of the player's settings that is seen. */
export type StageLook = Pick<PlayerSettings, "ground" | "colour" | "origin" | "held" | "ghostsBefore" | "ghostsAfter" | "ghostLook">;

/** The frame on the stage at a time; null if there is none. */
export function frameShown(playing: Playing, elapsed: Micros): PlayedFrame | null {
  const shown = timelineOfPlaying(playing).shownAt(Math.round(elapsed));
  return shown.visible ? (playing.steps[shown.step]?.frame ?? null) : null;
}

/** Clears the canvas and lays the ground. `scale` is device pixels per pixel of art; the check is the canvas's own background. */
export function paintGround(context: CanvasRenderingContext2D, scene: StageScene, look: StageLook): void {
  const { width, height } = context.canvas;
  context.clearRect(0, 0, width, height);
  if (look.ground === "flat" && look.colour !== null) {
    context.fillStyle = look.colour;
    context.fillRect(0, 0, width, height);
  }
  if (look.ground === "land") {
    const { scale, standing } = scene;
    // The picture begins far enough to the left that the standing point falls on one of its pixels.
    const left = Math.ceil(standing.x / scale);
    const up = Math.ceil(standing.y / scale);
    const picture = landscape(left + Math.ceil((width - standing.x) / scale), up + Math.ceil((height - standing.y) / scale), up);
    context.imageSmoothingEnabled = false;
    context.drawImage(picture, standing.x - left * scale, standing.y - up * scale, picture.width * scale, picture.height * scale);
  }
}

/** Paints one playing item. The canvas reports the frame it shows in `data-frame`. */
export function paintFigure(
  context: CanvasRenderingContext2D,
  playing: Playing,
  elapsed: Micros,
  scene: StageScene,
  look: StageLook,
  inks: StageInks,
  shown: ShownMarks | null = null,
): void {
  const { held } = look;
  const mirror = playing.mirror === true;
  const frame = frameShown(playing, elapsed);
  const whole = context.globalAlpha;
  if (look.ghostsBefore + look.ghostsAfter > 0) {
    const ghosts = ghostsAround(timelineOfPlaying(playing), Math.round(elapsed), look.ghostsBefore, look.ghostsAfter);
    for (const ghost of ghosts) {
      const other = playing.steps[ghost.step]?.frame;
      if (!other) continue;
      const { scale } = scene;
      const draw = (frame: PlayedFrame, x: number, y: number) => {
        const drawn = ghostPicture(frame, ghost.apart < 0 ? inks.before : inks.after, look.ghostLook);
        if (drawn) context.drawImage(drawn, x - scale, y - scale, drawn.width * scale, drawn.height * scale);
      };
      context.globalAlpha = look.ghostLook === "outline" ? Math.min(1, ghostAlpha(ghost) * 1.8) : ghostAlpha(ghost);
      const at = frameOnStage(other, scene, { held, mirror });
      mirrored(context, mirror, at.x, at.w, (x) => draw(other, x, at.y));
      const { facing = "s" } = playing;
      for (const part of playing.hanging?.at(ghost.step, ghost.at, { mirror, facing }) ?? [])
        paintHanging(context, other, part, scene, { held, mirror }, draw);
      context.globalAlpha = whole;
    }
  }
  if (look.origin) paintGroundLine(context, scene, inks.ink);
  if (frame) {
    const hanging = hangingAt(playing, elapsed);
    const draw = (each: PlayedFrame, x: number, y: number) => paintStill(context, each, x, y, scene.scale);
    for (const part of hanging) if (!part.front) paintHanging(context, frame, part, scene, { held, mirror }, draw);
    paintFrame(context, frame, scene, held, mirror);
    for (const part of hanging) if (part.front) paintHanging(context, frame, part, scene, { held, mirror }, draw);
  }
  if (frame && shown) paintMarks(context, frame, scene, shown, inks, { held, mirror });
  if (look.origin) paintOrigin(context, originOnStage(frame, scene, held, mirror));
}

/** The parts attached to the frame on the stage at a time, in drawing order. */
export function hangingAt(playing: Playing, elapsed: Micros): readonly HangingPart[] {
  if (!playing.hanging) return [];
  const time = Math.round(elapsed);
  const { mirror = false, facing = "s" } = playing;
  return playing.hanging.at(timelineOfPlaying(playing).shownAt(time).step, time, { mirror, facing });
}

/** `draw` receives the top-left corner of the part's frame. It lies on the host's pixel grid: their offset is a whole number of pixels. */
function paintHanging(
  context: CanvasRenderingContext2D,
  host: PlayedFrame,
  part: HangingPart,
  scene: StageScene,
  { held, mirror }: { readonly held: HeldStill; readonly mirror: boolean },
  draw: (frame: PlayedFrame, x: number, y: number) => void,
): void {
  const at = frameOnStage(host, scene, { held, mirror });
  const { scale } = scene;
  const { size, origin } = placeTurned(part.frame, part.mirror, part.angle);
  const x = at.x + Math.round(placeTurned(host, mirror).origin.x + part.x - origin.x) * scale;
  const y = at.y + Math.round(host.origin.y + part.y - origin.y) * scale;
  context.imageSmoothingEnabled = false;
  turned(context, { x, y, w: size.w * scale, h: size.h * scale }, part.angle ?? 0, (left, top) =>
    mirrored(context, part.mirror, left, part.frame.size.w * scale, (from) => draw(part.frame, from, top)),
  );
}

/** The position of the origin on the stage: the standing point, unless the frame is held still. */
function originOnStage(frame: PlayedFrame | null, scene: StageScene, held: HeldStill, mirror: boolean): FramePoint {
  if (!frame || held === "origin") return scene.standing;
  const anchor = anchorOf(frame, held);
  const side = mirror ? -1 : 1;
  return {
    x: scene.standing.x + Math.round((frame.origin.x - anchor.x) * scene.scale) * side,
    y: scene.standing.y + Math.round((frame.origin.y - anchor.y) * scene.scale),
  };
}

export function paintFrame(
  context: CanvasRenderingContext2D,
  frame: PlayedFrame,
  scene: StageScene,
  held: HeldStill,
  mirror: boolean,
): void {
  const at = frameOnStage(frame, scene, { held, mirror });
  context.imageSmoothingEnabled = false;
  mirrored(context, mirror, at.x, at.w, (x) => paintStill(context, frame, x, at.y, scene.scale));
}

function paintGroundLine(context: CanvasRenderingContext2D, { standing }: StageScene, ink: string): void {
  context.strokeStyle = ink;
  context.globalAlpha = 0.5;
  context.lineWidth = devicePixelRatio;
  context.setLineDash([4 * devicePixelRatio, 4 * devicePixelRatio]);
  context.beginPath();
  context.moveTo(0, standing.y + devicePixelRatio / 2);
  context.lineTo(context.canvas.width, standing.y + devicePixelRatio / 2);
  context.stroke();
  context.setLineDash([]);
  context.globalAlpha = 1;
}

/** A cross through the origin, black with a light edge, visible on any art. */
export function paintOrigin(context: CanvasRenderingContext2D, { x, y }: FramePoint): void {
  const arm = 6 * devicePixelRatio;
  const cross = () => {
    context.beginPath();
    context.moveTo(x - arm, y);
    context.lineTo(x + arm, y);
    context.moveTo(x, y - arm);
    context.lineTo(x, y + arm);
    context.stroke();
  };
  context.strokeStyle = "white";
  context.lineWidth = 3 * devicePixelRatio;
  cross();
  context.strokeStyle = "black";
  context.lineWidth = devicePixelRatio;
  cross();
}
