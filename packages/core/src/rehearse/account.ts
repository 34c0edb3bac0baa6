/** Runs a behaviour on a track and gives the account: which rule chose what and why, and what shows at any time. */
import { type Current, entriesUntil, type Program, type Row, type Run, runFromStart, runGiven, runUntil, type State } from "../behave";
import { type Micros, microsFromMs, type Track, type TrackEntry } from "../model";

/** A step with events being entered. */
interface PassedStep {
  readonly at: Micros;
  readonly clip: string;
  readonly step: number;
}

interface Account {
  readonly rows: readonly Row[];
  /** Every step entered, in order of time; only if asked for. */
  readonly passed: readonly PassedStep[];
  /** The state at each requested time, in the order requested. */
  readonly states: readonly State[];
}

export interface AccountOptions {
  /** Until when; absent: the last entry or the last time asked for. */
  readonly until?: Micros;
  /** Times at which the state is wanted. */
  readonly asked?: readonly Micros[];
  /** The clips whose steps are reported; absent for none. */
  readonly steps?: (clip: string) => boolean;
}

/** Runs a track from its start. Cost: O(instants × rules), however long it lasts. */
export function accountOf(program: Program, track: Track, { until, asked = [], steps }: AccountOptions = {}): Account {
  const ordered = track.toSorted((a, b) => a.at - b.at);
  const end = until ?? Math.max(0, ...asked, microsFromMs(ordered.at(-1)?.at ?? 0));
  const rows: Row[] = [];
  const passed: PassedStep[] = [];
  const passing = (current: Current, until: Micros) => {
    const { clip } = current.cast;
    if (steps?.(clip)) for (const { at, step } of entriesUntil(current, until, null)) passed.push({ at: current.from + at, clip, step });
  };
  const onPast = (past: Run) => {
    rows.push(...past.rows);
    for (const each of past.left) passing(each, past.now.at - 1);
  };
  const states = new Map<Micros, State>();
  const wanted = [...new Set(asked)].filter((at) => at <= end).sort((a, b) => a - b);
  let run = runFromStart(program);
  let [entry, next] = [0, 0];
  for (;;) {
    const at = Math.min(end, wanted[next] ?? end, timeOf(ordered[entry]));
    run = runUntil(program, run, at, onPast);
    const from = entry;
    while (timeOf(ordered[entry]) === at) entry++;
    run = runGiven(program, run, ordered.slice(from, entry));
    if (wanted[next] === at) {
      states.set(at, run.now);
      next++;
    }
    if (at === end) break;
  }
  onPast(run);
  if (run.now.current) passing(run.now.current, end);
  return { rows, passed, states: asked.map((at) => states.get(at) ?? run.now) };
}

/** Infinity if there is no entry. */
function timeOf(entry: TrackEntry | undefined): Micros {
  return entry ? microsFromMs(entry.at) : Number.POSITIVE_INFINITY;
}
