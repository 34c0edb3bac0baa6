import { useLayoutEffect, useState } from "react";

/** ms: between the keys of what is being typed, or of one key pressed again and again. */
const PAUSE = 700;

/** When a key was last pressed outside dialogs, in ms since the page began. */
let keyAt = Number.NEGATIVE_INFINITY;

function heard({ ctrlKey, metaKey, target, timeStamp }: KeyboardEvent): void {
  // An answer to a dialog may bring the next one; a command with Ctrl may be what brings this one, such as pasting.
  if (ctrlKey || metaKey || (target instanceof Element && target.closest("[role=dialog]"))) return;
  keyAt = timeStamp;
}

if (typeof window !== "undefined") addEventListener("keydown", heard, { capture: true });

/**
 * Whether what waits may be shown: at once, or after a pause if a person is typing, or pressing keys. What opened amid a word would take its
 * other letters and its Enter.
 */
export function useOnceKeysRest(waits: boolean): boolean {
  const [isResting, setResting] = useState(false);
  useLayoutEffect(() => {
    if (!waits) return setResting(false);
    let timer: ReturnType<typeof setTimeout>;
    const look = () => {
      const left = keyAt + PAUSE - performance.now();
      if (left <= 0) setResting(true);
      else timer = setTimeout(look, left);
    };
    look();
    return () => clearTimeout(timer);
  }, [waits]);
  return waits && isResting;
}
