import { useEffect } from "react";

/** ms: as long as the second click of a double click may take on common systems. */
const DOUBLE_CLICK = 500;
/** px: as far as a hand may slip between its clicks. */
const SLIP = 6;

/** ms: sooner nobody has seen what arrived. */
const UNSEEN = 400;
/** What a press may be answering, or be meant for. */
const LAYERS = "[role=dialog], [role=alertdialog], [role=menu]";

interface Place {
  readonly x: number;
  readonly y: number;
}

/** When a button of the mouse or a finger was last pressed, in ms since the page began. */
let pressedAt = Number.NEGATIVE_INFINITY;
/** Where the pointer was last, and what it last pressed in. */
let pointer: Place | null = null;
let pressed: { readonly layer: Element | null; readonly at: Place } | null = null;
/** The last dialog that opened by itself: when, and where the pointer was. */
let arrival: { readonly time: number; readonly at: Place } | null = null;

/** To be called when a dialog opens by itself: a press made just then, without having moved to it, is meant for what was there before. */
export function noteArrival(): void {
  // After an answer to another dialog it was expected.
  arrival = pointer && !pressed?.layer ? { time: performance.now(), at: pointer } : null;
}

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
 * Nor does a single click do anything to a dialog that opened by itself while it was made.
 */
export function useStrayPresses(): void {
  useEffect(() => {
    const swallowed = [unlikeButtons(), meantForOthers()].flatMap(Object.entries) as [string, (event: Event) => void][];
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

/**
 * Swallows a press, and what follows from it, that is meant for something else than what is there: the second of a double click whose first
 * was in a dialog or a menu that is gone, and one on a dialog that has just arrived.
 */
function meantForOthers() {
  let isMeantForOther = false;
  const swallow = (event: MouseEvent) => {
    if (!isMeantForOther) return;
    event.preventDefault();
    event.stopPropagation();
  };
  return {
    pointermove: ({ clientX: x, clientY: y }: PointerEvent) => {
      pointer = { x, y };
      seenFrom(pointer);
    },
    pointerdown: (event: PointerEvent) => {
      const at = { x: event.clientX, y: event.clientY };
      const isSecond = pressed !== null && isSecondPress(pressedAt, event) && isNear(at, pressed.at);
      const isUnseen = arrival !== null && event.timeStamp - arrival.time < UNSEEN && isNear(at, arrival.at);
      isMeantForOther = isUnseen || (isSecond && pressed?.layer?.isConnected === false);
      pressedAt = event.timeStamp;
      pressed = { layer: within(event.target, LAYERS), at };
      pointer = at;
      seenFrom(at);
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

/** Whoever has moved on has seen what arrived: coming back to the place is no stray press any more. */
function seenFrom(at: Place): void {
  if (arrival && !isNear(at, arrival.at)) arrival = null;
}

function isNear(a: Place, b: Place): boolean {
  return Math.hypot(a.x - b.x, a.y - b.y) <= SLIP;
}

function within(target: EventTarget | null, what: string): Element | null {
  return target instanceof Element ? target.closest(what) : null;
}
