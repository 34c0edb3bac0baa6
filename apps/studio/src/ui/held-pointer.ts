/** Returns since when a pointer has been held down, in the page's clock; null if none is. */
let since: number | null = null;

export function heldSince(): number | null {
  return since;
}

if (typeof addEventListener !== "undefined") {
  const down = () => {
    since ??= performance.now();
  };
  const up = () => {
    since = null;
  };
  addEventListener("pointerdown", down, { capture: true });
  for (const end of ["pointerup", "pointercancel", "blur"]) addEventListener(end, up, { capture: true });
}
