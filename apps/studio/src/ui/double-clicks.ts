import { useEffect } from "react";

/** ms: as long as the second click of a double click may take on common systems. */
const DOUBLE_CLICK = 500;

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
 * of a dialog that opened or of the next row of a list.
 */
export function useDoubleClicks(): void {
  useEffect(() => {
    let first: Element | null = null;
    let strange: Element | null = null;
    const point = ({ timeStamp }: PointerEvent) => {
      pressedAt = timeStamp;
    };
    const press = ({ target, detail }: MouseEvent) => {
      const button = buttonAt(target);
      if (detail <= 1) first = button;
      strange = detail > 1 && button !== first ? button : null;
    };
    const click = (event: MouseEvent) => {
      if (strange === null || buttonAt(event.target) !== strange) return;
      event.preventDefault();
      event.stopPropagation();
    };
    addEventListener("pointerdown", point, { capture: true });
    addEventListener("mousedown", press, { capture: true });
    addEventListener("click", click, { capture: true });
    return () => {
      removeEventListener("pointerdown", point, { capture: true });
      removeEventListener("mousedown", press, { capture: true });
      removeEventListener("click", click, { capture: true });
    };
  }, []);
}

function buttonAt(target: EventTarget | null): Element | null {
  return target instanceof Element ? target.closest("button") : null;
}
