/** A clip with what its metadata file changed; what a person changed stays. */
import { type Clip, groupedBy, type Source, type Step } from "../model";
import { merged, same } from "../three-way";
import { framesOf, isOn, type PlainClip, type PlainStep, plain, plainStep, rulesOf } from "./told-of-source";

/** The clip with what the file changed; `isKept` if the project had changed the same. */
export function withChanges(clip: Clip, source: Source, was: PlainClip, now: PlainClip): { readonly clip: Clip; readonly isKept: boolean } {
  let isKept = false;
  const clash = () => {
    isKept = true;
  };
  const own = clip.steps.filter(isOn(source));
  const before = plain(clip, source);
  const rules = merged(rulesOf(was), rulesOf(before), rulesOf(now), [], clash) as Pick<Clip, "playback" | "times">;
  const steps = mergedSteps(was.steps, before.steps, now.steps, clash);
  const isOnlyHere = own.length === clip.steps.length;
  const isSame = same(steps, before.steps);
  // Of other pictures' steps nothing says where they are among more or fewer of this one.
  if (!isSame && !isOnlyHere && steps.length !== own.length) return { clip, isKept: true };
  if (isSame && same(rules, rulesOf(before))) return { clip, isKept };
  const laid = laidOver(own, steps);
  const all = isOnlyHere ? laid : inPlaceOf(clip, source, laid);
  return { clip: { ...clip, ...rules, steps: all.map(({ step }) => step), loopFrom: loopFromOf(clip, all) }, isKept };
}

function mergedSteps(
  was: readonly PlainStep[],
  own: readonly PlainStep[],
  now: readonly PlainStep[],
  clash: () => void,
): readonly PlainStep[] {
  const frames = framesOf(own);
  if (same(framesOf(was), frames) && same(frames, framesOf(now)))
    return own.map((step, k) => merged(was[k], step, now[k], [], clash) as PlainStep);
  let isClear = true;
  const whole = merged(was, own, now, ["steps"], () => {
    isClear = false;
  }) as readonly PlainStep[];
  return isClear ? whole : mergedApart(was, own, now, clash);
}

/** First which frames are shown in which order, then each frame's step: other times are no reason to miss new frames. */
function mergedApart(
  was: readonly PlainStep[],
  own: readonly PlainStep[],
  now: readonly PlainStep[],
  clash: () => void,
): readonly PlainStep[] {
  const [before, mine, theirs] = [byShowing(was), byShowing(own), byShowing(now)];
  const order = merged([...before.keys()], [...mine.keys()], [...theirs.keys()], ["steps"], clash) as readonly string[];
  return order.map((showing) => {
    const [here, there] = [mine.get(showing), theirs.get(showing)];
    return (here && there ? merged(before.get(showing), here, there, [], clash) : (here ?? there)) as PlainStep;
  });
}

/** The steps by their frames, and by how often each has been shown before. */
function byShowing(steps: readonly PlainStep[]): Map<string, PlainStep> {
  const times = new Map<string, number>();
  return new Map(
    steps.map((step) => {
      const time = times.get(step.frame) ?? 0;
      times.set(step.frame, time + 1);
      return [`${step.frame} ${time}`, step];
    }),
  );
}

interface Laid {
  readonly step: Step;
  /** The index of the clip's step that it was; null for a new one. */
  readonly from: number | null;
}

/** The steps as they are to be, each with what else the clip's own step of that frame has. */
function laidOver(own: readonly Step[], steps: readonly PlainStep[]): Laid[] {
  const left = groupedBy([...own.entries()], ([, { frame }]) => frame);
  return steps.map((plain): Laid => {
    const queue = left.get(plain.frame) as [number, Step][] | undefined;
    const at = queue?.findIndex(([, step]) => same(plainStep(step), plain)) ?? -1;
    const [k, step] = queue?.splice(Math.max(0, at), 1)[0] ?? [null, null];
    if (k === null || step === null) return { step: plain, from: null };
    if (same(plainStep(step), plain)) return { step, from: k };
    const { events: _events, eventValues = [], ...rest } = step;
    const values = eventValues.filter(({ name }) => plain.events?.includes(name));
    return { step: { ...rest, ...plain, ...(values.length > 0 ? { eventValues: values } : {}) }, from: k };
  });
}

function inPlaceOf(clip: Clip, source: Source, laid: readonly Laid[]): Laid[] {
  let k = 0;
  return clip.steps.map((step, at) => (isOn(source)(step) ? (laid[k++] as Laid) : { step, from: at }));
}

/** The loop begins with the step with which it began, or the next one that is still there. */
function loopFromOf({ loopFrom }: Clip, laid: readonly Laid[]): number {
  if (loopFrom === 0) return 0;
  const at = laid.findIndex(({ from }) => from !== null && from >= loopFrom);
  return at < 0 ? Math.max(0, laid.length - 1) : at;
}
