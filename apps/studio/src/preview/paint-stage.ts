/** Paints what is playing at a time onto a canvas: ground, ghosts, figure, origin. What is where is worked out in stage-scene.ts. */
import type { FramePoint, Micros } from "@caravan/core/model";
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

/** The part of the player's settings that is seen. */
export type StageLook = Pick<PlayerSettings, "ground" | "colour" | "origin" | "held" | "ghostsBefore" | "ghostsAfter" | "ghostLook">;

/** The frame that stands on the stage at a time, null if none does. */
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

/** Paints one thing that plays. The canvas tells which frame it shows in its `data-frame`. */
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
      const drawn = other && ghostPicture(other, ghost.apart < 0 ? inks.before : inks.after, look.ghostLook);
      if (!drawn) continue;
      const at = frameOnStage(other, scene, { held, mirror });
      const { scale } = scene;
      context.globalAlpha = look.ghostLook === "outline" ? Math.min(1, ghostAlpha(ghost) * 1.8) : ghostAlpha(ghost);
      mirrored(context, mirror, at.x, at.w, (x) =>
        context.drawImage(drawn, x - scale, at.y - scale, drawn.width * scale, drawn.height * scale),
      );
      context.globalAlpha = whole;
    }
  }
  if (look.origin) paintGroundLine(context, scene, inks.ink);
  if (frame) {
    const hanging = hangingAt(playing, elapsed);
    for (const part of hanging) if (!part.front) paintHanging(context, frame, part, scene, held, mirror);
    paintFrame(context, frame, scene, held, mirror);
    for (const part of hanging) if (part.front) paintHanging(context, frame, part, scene, held, mirror);
  }
  if (frame && shown) paintMarks(context, frame, scene, shown, inks, { held, mirror });
  if (look.origin) paintOrigin(context, originOnStage(frame, scene, held, mirror));
}

/** What hangs on the frame that stands on the stage at a time, in the order in which it is drawn. */
export function hangingAt(playing: Playing, elapsed: Micros): readonly HangingPart[] {
  if (!playing.hanging) return [];
  const time = Math.round(elapsed);
  const { mirror = false, facing = "s" } = playing;
  return playing.hanging.at(timelineOfPlaying(playing).shownAt(time).step, time, { mirror, facing });
}

/** On the host's own pixels: how far the one lies from the other is a whole number of them. */
function paintHanging(
  context: CanvasRenderingContext2D,
  host: PlayedFrame,
  part: HangingPart,
  scene: StageScene,
  held: HeldStill,
  mirror: boolean,
): void {
  const at = frameOnStage(host, scene, { held, mirror });
  const before = (frame: PlayedFrame, isMirrored: boolean) => (isMirrored ? frame.size.w - frame.origin.x : frame.origin.x);
  const across = Math.round(before(host, mirror) + part.x - before(part.frame, part.mirror));
  const down = Math.round(host.origin.y + part.y - part.frame.origin.y);
  const { scale } = scene;
  context.imageSmoothingEnabled = false;
  mirrored(context, part.mirror, at.x + across * scale, part.frame.size.w * scale, (x) =>
    paintStill(context, part.frame, x, at.y + down * scale, scale),
  );
}

/** Where the origin lies on the stage: the standing point, unless the frame is what is held still. */
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

/** Draws at `x`, or, mirrored, so that what is drawn from x rightward fills the same place the other way round. */
function mirrored(context: CanvasRenderingContext2D, mirror: boolean, x: number, width: number, draw: (x: number) => void): void {
  if (!mirror) {
    draw(x);
    return;
  }
  context.save();
  context.translate(2 * x + width, 0);
  context.scale(-1, 1);
  draw(x);
  context.restore();
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

/** A cross through the origin, black with a light edge so that it is seen on any art. */
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
