/** Moves the focus through the parts of the screen, in order. Parts mark themselves with `data-region`. */

/** What in a part takes the focus: what the tab key would reach first. */
const REACHED = 'button:not([disabled]):not([tabindex="-1"]), input:not([disabled]), a[href], select, [tabindex="0"]';

/** Moves the focus into the next part of the screen, or the one before; what has nothing to reach takes it itself. */
export function moveFocus(by: 1 | -1): void {
  const regions = [...document.querySelectorAll<HTMLElement>("[data-region]")].filter((each) => each.checkVisibility());
  const here = regions.findIndex((each) => each.contains(document.activeElement));
  const next = regions[(here < 0 && by < 0 ? regions.length - 1 : here + by + regions.length) % regions.length];
  if (!next) return;
  const chosen = next.querySelector<HTMLElement>('[aria-current="page"], [aria-current="true"]');
  (chosen ?? next.querySelector<HTMLElement>(REACHED) ?? next).focus();
}
