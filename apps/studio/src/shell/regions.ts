/** Moves the focus through the parts of the screen, in order. Parts mark themselves with `data-region`. */

/** The element of a part that gets the focus: the first one that Tab would reach. */
const REACHED = 'button:not([disabled]):not([tabindex="-1"]), input:not([disabled]), a[href], select, [tabindex="0"]';

/** Moves the focus to the next or previous part of the screen; a part with nothing focusable gets it itself. */
export function moveFocus(by: 1 | -1): void {
  const regions = [...document.querySelectorAll<HTMLElement>("[data-region]")].filter((each) => each.checkVisibility());
  const here = regions.findIndex((each) => each.contains(document.activeElement));
  const next = regions[(here < 0 && by < 0 ? regions.length - 1 : here + by + regions.length) % regions.length];
  if (!next) return;
  const chosen = next.querySelector<HTMLElement>('[aria-current="page"], [aria-current="true"]');
  (chosen ?? next.querySelector<HTMLElement>(REACHED) ?? next).focus();
}
