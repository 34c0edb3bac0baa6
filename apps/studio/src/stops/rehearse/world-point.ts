import type { FramePoint, Stage } from "@caravan/core/model";
import { cameraAt } from "./paint-stage";
import { rehearsalAt, type Session, shownTime, useSession } from "./session";

/** Converts the pointer's position to world coordinates. */
export function worldPoint(
  event: { clientX: number; clientY: number },
  canvas: HTMLCanvasElement | null,
  stage: Stage,
  scale: number,
): FramePoint {
  const box = canvas?.getBoundingClientRect();
  const moving = shownMoving(useSession.getState());
  const camera = cameraAt(stage, moving ?? stage.start);
  return { x: camera.x + (event.clientX - (box?.left ?? 0)) / scale, y: camera.y + (event.clientY - (box?.top ?? 0)) / scale };
}

function shownMoving(session: Session) {
  return (session.pointed === null && session.stay === null ? session.end : rehearsalAt(session, shownTime(session)))?.moving;
}
