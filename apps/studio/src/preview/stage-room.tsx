"use client";

/** Sizes the stage: a remembered height that is dragged by the lower edge, or the whole window. */
import { create } from "zustand";
import { remember, remembered } from "../ui/remembered";
import { t } from "../ui/words";

const KEY = "caravan stage height";
const USUAL = 230; // px
const LEAST = 140; // px
const MOST = 640; // px
const STEP = 10; // px for each press of an arrow key

interface Room {
  readonly height: number;
  /** Whether the player fills the window. Not remembered: a visit begins with everything in sight. */
  readonly whole: boolean;
}

export const useStageRoom = create<Room>(() => ({ height: stored(), whole: false }));

function stored(): number {
  const height = Number(remembered(KEY) ?? Number.NaN);
  return Number.isFinite(height) ? within(height) : USUAL;
}

function within(height: number): number {
  return Math.round(Math.max(LEAST, Math.min(MOST, height)));
}

function setHeight(height: number): void {
  const next = within(height);
  useStageRoom.setState({ height: next });
  remember(KEY, String(next));
}

export function toggleWhole(): void {
  // A field behind it would keep the keys for itself.
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
  useStageRoom.setState(({ whole }) => ({ whole: !whole }));
}

/** The stage's lower edge: drag it, or move it with the arrow keys; a double click gives the usual height. */
export function StageEdge() {
  const height = useStageRoom((room) => room.height);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a rule that moves is a separator with a value, which <hr> is not
    <div
      role="separator"
      aria-orientation="horizontal"
      aria-label={t("Height of the player")}
      aria-valuenow={height}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      tabIndex={0}
      className="group flex h-2 cursor-row-resize touch-none items-center justify-center hover:bg-lapis-soft focus-visible:bg-lapis-soft"
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (event.currentTarget.hasPointerCapture(event.pointerId)) setHeight(useStageRoom.getState().height + event.movementY);
      }}
      onDoubleClick={() => setHeight(USUAL)}
      onKeyDown={(event) => {
        if (event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
        event.preventDefault();
        setHeight(height + (event.key === "ArrowDown" ? STEP : -STEP));
      }}
    >
      <span aria-hidden className="h-0.5 w-8 rounded-full bg-line-strong group-hover:bg-lapis" />
    </div>
  );
}
