/** Edits the stacking order of pieces, lowest first. */
export type Restacking = "up" | "down" | "top" | "bottom";

export const RESTACKING: Readonly<Record<Restacking, string>> = {
  up: "raise",
  down: "lower",
  top: "bring to the top",
  bottom: "send to the bottom",
};

/** The new positions of the pieces at `places`, by position. */
export function placesRestacked(count: number, places: readonly number[], to: Restacking): number[] {
  const order = restacked(
    Array.from({ length: count }, (_, place) => place),
    places,
    to,
  );
  return places.map((place) => order.indexOf(place));
}

export function restacked<Each>(all: readonly Each[], places: readonly number[], to: Restacking): Each[] {
  const chosen = new Set(places);
  const isChosen = all.map((_, place) => chosen.has(place));
  if (to === "top" || to === "bottom") {
    const moved = all.filter((_, place) => isChosen[place]);
    const rest = all.filter((_, place) => !isChosen[place]);
    return to === "top" ? [...rest, ...moved] : [...moved, ...rest];
  }
  const next = all.map((each, place) => ({ each, chosen: isChosen[place] === true }));
  // Starting from the side that they move to, so that neighbours move together and pieces at the end stay.
  const along = to === "up" ? next.map((_, k) => next.length - 1 - k) : next.map((_, k) => k);
  const step = to === "up" ? 1 : -1;
  for (const at of along) {
    const [here, there] = [next[at], next[at + step]];
    if (here?.chosen && there && !there.chosen) [next[at], next[at + step]] = [there, here];
  }
  return next.map(({ each }) => each);
}
