/** Moves the focus through the parts of the screen, in order. Parts mark themselves with `data-region`. */

/** The element of a part that gets the focus: the first one that Tab would reach. */
const REACHED = 'button:not([disabled]):not([tabindex="-1"]), input:not([disabled]), a[href], select, [tabindex="0"]';

/**
 * Moves the focus to the next or previous part of the screen; a part with nothing focusable gets it itself. From nowhere, as after loading,
 * the next part is where the work is.
 */
export function moveFocus(by: 1 | -1): void {
  const regions = [...document.querySelectorAll<HTMLElement>("[data-region]")].filter((each) => each.checkVisibility());
  // Parts may stand within others: the innermost counts.
  const here = regions.findLastIndex((each) => each.contains(document.activeElement));
  const start = by > 0 ? regions.findIndex((each) => each.dataset.region === "surface") : regions.length - 1;
  const next = regions[here < 0 ? start : (here + by + regions.length) % regions.length];
  if (!next) return;
  const chosen = next.querySelector<HTMLElement>('[aria-current="page"], [aria-current="true"]');
  (chosen ?? next.querySelector<HTMLElement>(REACHED) ?? next).focus();
}
