import { useEffect } from "react";

/**
 * A double click is meant for what was there at its first click: its second click presses no button that came under the pointer meanwhile,
 * of a dialog that opened or of the next row of a list.
 */
export function useDoubleClicks(): void {
  useEffect(() => {
    let first: Element | null = null;
    let strange: Element | null = null;
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
    addEventListener("mousedown", press, { capture: true });
    addEventListener("click", click, { capture: true });
    return () => {
      removeEventListener("mousedown", press, { capture: true });
      removeEventListener("click", click, { capture: true });
    };
  }, []);
}

function buttonAt(target: EventTarget | null): Element | null {
  return target instanceof Element ? target.closest("button") : null;
}
