import type { Atlas } from "@caravan/player";

/** What the game plays when: names of actions or clips of whatever was delivered. */
export interface Fitting {
  readonly rest: string;
  readonly move: string;
  /** Played once when Space is pressed; null if the delivery has nothing that ends. */
  readonly act: string | null;
  /** Whether a name sounds like moving; otherwise the first clip is used. */
  readonly sounds: boolean;
}

/** The parts of an atlas that show which movements it has. */
export interface Movements {
  readonly clips: Readonly<Record<string, Pick<Atlas["clips"][string], "playback" | "times">>>;
  readonly actions?: Readonly<Record<string, { readonly facings: Readonly<Partial<Record<string, { readonly clip: string }>>> }>>;
}

const MOVES = /walk|run|move|ride|fly|swim/i;
const RESTS = /idle|rest|stand|wait/i;
const ACTS = /act|strike|attack|wave|glance|use|hit/i;

/** The best fit for a delivery of any project; null if there is nothing to play at all. */
export function fittingOf({ actions = {}, clips }: Movements): Fitting | null {
  // Actions turn, clips do not: actions come first.
  const names = [...Object.keys(actions), ...Object.keys(clips)];
  const [first] = names;
  if (first === undefined) return null;
  const sounding = names.find((name) => MOVES.test(name));
  const move = sounding ?? first;
  const rest = names.find((name) => RESTS.test(name)) ?? move;
  const ends = (name: string) => {
    const { playback = "loop", times = 0 } = clips[name] ?? {};
    return playback === "once" || times > 0;
  };
  // An action is played as one, in the facing of now, and not its clip for some facing.
  const facings = Object.entries(actions).map(
    ([name, action]) => [name, Object.values(action.facings).flatMap((petal) => petal?.clip ?? [])] as const,
  );
  const inActions = new Set(facings.flatMap(([, own]) => own));
  const ending = [
    ...facings.filter(([, own]) => own.length > 0 && own.every(ends)).map(([name]) => name),
    ...Object.keys(clips).filter((name) => ends(name) && !inActions.has(name)),
    ...Object.keys(clips).filter((name) => ends(name) && inActions.has(name)),
  ];
  return { rest, move, act: ending.find((name) => ACTS.test(name)) ?? ending[0] ?? null, sounds: sounding !== undefined };
}
