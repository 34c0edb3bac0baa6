import { useEffect } from "react";

/** ms: as long as the second click of a double click may take on common systems. */
const DOUBLE_CLICK = 500;
/** px: as far as a hand may slip between its clicks. */
const SLIP = 6;

/** When a button of the mouse or a finger was last pressed, in ms since the page began. */
let pressedAt = Number.NEGATIVE_INFINITY;

export function lastPress(): number {
  return pressedAt;
}

/** Whether a press may be the second one of a double click that began at `first`. By when it was made: a busy page hears of it later. */
export function isSecondPress(first: number, { timeStamp }: Event): boolean {
  return timeStamp - first < DOUBLE_CLICK;
}

/**
 * A double click is meant for what was there at its first click: its second click presses no button that came under the pointer meanwhile,
 * of a dialog that opened or of the next row of a list; and if the first one closed a dialog or a menu, it does nothing to what was beneath.
 */
export function useDoubleClicks(): void {
  useEffect(() => {
    const swallowed = [unlikeButtons(), beneathClosed()].flatMap(Object.entries) as [string, (event: Event) => void][];
    for (const [kind, heard] of swallowed) addEventListener(kind, heard, { capture: true });
    return () => {
      for (const [kind, heard] of swallowed) removeEventListener(kind, heard, { capture: true });
    };
  }, []);
}

/** Swallows the second click where it is on another button than the first. */
function unlikeButtons() {
  let first: Element | null = null;
  let strange: Element | null = null;
  return {
    mousedown: ({ target, detail }: MouseEvent) => {
      const button = within(target, "button");
      if (detail <= 1) first = button;
      strange = detail > 1 && button !== first ? button : null;
    },
    click: (event: MouseEvent) => {
      if (strange === null || within(event.target, "button") !== strange) return;
      event.preventDefault();
      event.stopPropagation();
    },
  };
}

/** Swallows the second press, and what follows from it, where the first one was in a dialog or a menu that is gone. */
function beneathClosed() {
  let first: { readonly layer: Element | null; readonly x: number; readonly y: number } | null = null;
  let isBeneath = false;
  const swallow = (event: MouseEvent) => {
    if (!isBeneath) return;
    event.preventDefault();
    event.stopPropagation();
  };
  return {
    pointerdown: (event: PointerEvent) => {
      const { clientX: x, clientY: y, target } = event;
      const isSecond = first !== null && isSecondPress(pressedAt, event) && Math.hypot(x - first.x, y - first.y) <= SLIP;
      isBeneath = isSecond && first?.layer?.isConnected === false;
      pressedAt = event.timeStamp;
      first = { layer: within(target, "[role=dialog], [role=alertdialog], [role=menu]"), x, y };
      swallow(event);
    },
    pointerup: swallow,
    mousedown: swallow,
    mouseup: swallow,
    dblclick: swallow,
    // A key presses a button with a click as well.
    click: (event: MouseEvent) => {
      if (event.detail > 0) swallow(event);
    },
  };
}

function within(target: EventTarget | null, what: string): Element | null {
  return target instanceof Element ? target.closest(what) : null;
}
