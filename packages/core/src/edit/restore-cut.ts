/** Returns a source to the cells that it was cut into before another way was tried. */
import { cutInWords } from "../cut";
import { withAnchoredFrames } from "../marks";
import {
  allPictures,
  CaravanError,
  type Frame,
  type FramePoint,
  originOf,
  type Project,
  type Source,
  type SourceId,
  scaleOf,
  showsMostlyTheSame,
  sourceById,
} from "../model";
import { t } from "../words";
import { withKnownMarks } from "./earlier-cuts";
import { edit } from "./edit";
import { refuseOfPieces } from "./of-pieces";
import { framesScaledBy, scaledPoint } from "./scale";
import { withCut } from "./with-cut";

/**
 * Restores a source's earlier cut and frames. What was decided since about frames that show the same drawings stays, at its pixels; all
 * others are as they were, without marks of kinds that are no more, and frames made since are left out. Throws `changed-meanwhile` if its pictures have changed.
 */
export const restoreCut = edit(
  (project, id: SourceId, before: Source) =>
    before.cut
      ? t("cut {name} {how} again", { name: sourceById(project, id).name, how: cutInWords(before.cut) })
      : t("cut {name} as it was again", { name: sourceById(project, id).name }),
  (project, id, before) => {
    const source = sourceById(project, id);
    refuseOfPieces(source);
    if (hashesOf(before) !== hashesOf(source))
      throw new CaravanError(
        "changed-meanwhile",
        source.name,
        t("Its art has changed since it was cut that way."),
        t("Cut it into cells again."),
      );
    return asBefore(project, source, before);
  },
);

/** The project with a source cut as it was before, from the same art; as `restoreCut`, `isDecided` as in `EarlierCuts`. */
export function asBefore(project: Project, source: Source, before: Source, isDecided = (_key: string) => true): Project {
  const by = scaleOf(source) / scaleOf(before);
  const now = new Map(source.frames.map((frame) => [frame.key as string, frame]));
  const olds = framesScaledBy(before.frames, by).map((frame) => withKnownMarks(project, frame));
  const since = (frame: Frame) => {
    const same = isDecided(frame.key) ? now.get(frame.key) : undefined;
    return same && showsMostlyTheSame(same, frame) ? same : undefined;
  };
  const stayed = new Set(olds.flatMap((frame) => (since(frame) ? [frame.key as string] : [])));
  const names = new Set(olds.flatMap((frame) => since(frame)?.name ?? []));
  const frames = olds.map((frame) => {
    const same = since(frame);
    if (same) return withDecisionsOf(same, frame);
    const { name, ...others } = frame;
    // Another frame has the name by now.
    return name !== undefined && names.has(name) ? others : frame;
  });
  // All others are where they were: numbers that other cuts left as they are say nothing about them.
  const made = withAnchoredFrames({ ...source, frames: source.frames.filter(({ key }) => stayed.has(key)) }, frames);
  const common = before.origin ? scaledPoint(before.origin, by) : null;
  const origins = made.frames.map(({ key, origin }) => origin ?? (stayed.has(key) ? made.origin : (common ?? undefined)));
  return withCut(project, { ...withOrigins(made, origins, common), cut: before.cut });
}

/** The frame with the name, origin, marks, values and drop of another. */
function withDecisionsOf(
  other: Frame,
  { name: _name, origin: _origin, marks: _marks, data: _data, dropped: _dropped, ...place }: Frame,
): Frame {
  const { name, origin, marks, data, dropped } = other;
  return {
    ...place,
    ...(name === undefined ? {} : { name }),
    ...(origin ? { origin } : {}),
    ...(marks ? { marks } : {}),
    ...(data ? { data } : {}),
    ...(dropped ? { dropped } : {}),
  };
}

/**
 * The source with each frame's origin as given: by the common one where it is that, otherwise by its own. `before` is the common one of
 * before, null if that was the middle of the bottom edge, as it is again if every frame stands there.
 */
function withOrigins({ origin, ...source }: Source, origins: readonly (FramePoint | undefined)[], before: FramePoint | null): Source {
  const [first] = origins;
  const usual = source.frames.map((frame) => originOf(source, { ...frame, origin: undefined }));
  if (before === null && origins.every((each, k) => !each || isSame(each, usual[k]))) return withoutOrigins(source);
  const common = origin && origins.every((each) => isSame(each, first)) ? first : (before ?? origin);
  const frames = source.frames.map((frame, k): Frame => {
    const { origin: _own, ...others } = frame;
    const own = origins[k];
    return own && !isSame(own, common) ? { ...others, origin: own } : others;
  });
  return { ...source, frames, ...(common ? { origin: common } : {}) };
}

function withoutOrigins(source: Source): Source {
  return { ...source, frames: source.frames.map(({ origin: _own, ...frame }) => frame) };
}

function isSame(a: FramePoint | undefined, b: FramePoint | undefined): boolean {
  return a?.x === b?.x && a?.y === b?.y;
}

function hashesOf(source: Source): string {
  return allPictures(source)
    .map(({ sha256 }) => sha256)
    .join();
}
