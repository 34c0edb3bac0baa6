/** Which clips of a project came from which of a metadata file. */
import { type Clip, groupedBy, type Source } from "../model";
import { areMostlyAlike } from "../three-way";
import type { ArrivedClip } from "./arrived-clips";
import { framesOf, isOn, type PlainClip, plain, saysSame } from "./told-of-source";

/** A clip of the file, as it was before if that is known, and the project's clip that came from it. */
interface Pair {
  readonly arrived: ArrivedClip;
  readonly now: PlainClip;
  readonly was: PlainClip | null;
  readonly clip: Clip | null;
}

/**
 * Which clip of the project came from which of the file, and those that the file had before. Clips of a file are the same by their names, or by
 * the frames that they show; a project's clip is one of the file if it is as that was, or else by its name, or if it mostly shows what that did.
 */
export function pairedClips(
  source: Source,
  clips: readonly Clip[],
  now: readonly { readonly arrived: ArrivedClip; readonly now: PlainClip }[],
  told: readonly { readonly now: PlainClip }[] | null,
): { readonly pairs: readonly Pair[]; readonly gone: readonly { readonly was: PlainClip; readonly clip: Clip }[] } {
  const names = new Set(now.map((each) => each.now.name));
  const before = (told ?? []).map((each) => each.now);
  const left = new Set(before);
  const named = groupedBy(before, ({ name }) => name);
  const showing = groupedBy(before, shown);
  const origins = now.map(({ now: clip }) => {
    const alike = clip.steps.length > 0 ? showing.get(shown(clip)) : undefined;
    const was =
      named.get(clip.name)?.find((each) => left.has(each)) ?? alike?.find((each) => left.has(each) && !names.has(each.name)) ?? null;
    if (was) left.delete(was);
    return was;
  });
  const sought = [
    ...now.map((each, k) => ({ like: origins[k] ?? each.now, sure: origins[k] !== null })),
    ...[...left].map((like) => ({ like, sure: true })),
  ];
  const found = paired(source, clips, sought);
  return {
    pairs: now.map((each, k) => ({ ...each, was: origins[k] ?? null, clip: found[k] ?? null })),
    gone: [...left].flatMap((was, k) => {
      const clip = found[now.length + k];
      return clip ? [{ was, clip }] : [];
    }),
  };
}

/** For each of the clips sought the project's that it is. A clip that was not in the file before is not one that merely looks similar. */
function paired(
  source: Source,
  clips: readonly Clip[],
  sought: readonly { readonly like: PlainClip; readonly sure: boolean }[],
): (Clip | null)[] {
  const free = new Set(clips.filter(({ steps }) => steps.some(isOn(source))));
  const plains = new Map([...free].map((clip) => [clip, plain(clip, source)]));
  const found: (Clip | null)[] = sought.map(() => null);
  const pass = (keyOf: (clip: PlainClip) => string, fits: (own: PlainClip, like: PlainClip, sure: boolean) => boolean): void => {
    const byKey = groupedBy([...free], (clip) => keyOf(plains.get(clip) as PlainClip));
    for (const [k, { like, sure }] of sought.entries()) {
      if (found[k]) continue;
      const clip = byKey.get(keyOf(like))?.find((each) => free.has(each) && fits(plains.get(each) as PlainClip, like, sure));
      if (!clip) continue;
      found[k] = clip;
      free.delete(clip);
    }
  };
  const nameOf = ({ name }: PlainClip) => name;
  pass(nameOf, saysSame);
  pass(shown, saysSame);
  pass(nameOf, () => true);
  pass(
    () => "any",
    (own, like, sure) => sure && areMostlyAlike(framesOf(own.steps), framesOf(like.steps)),
  );
  return found;
}

/** The frames that a clip shows, as one text. */
function shown({ steps }: PlainClip): string {
  return framesOf(steps).join("\n");
}
