/** Clips of an animation follow its file: the times of its pictures, and pictures that are new, gone or elsewhere. */
import type { NewFrame } from "../frame-identity";
import { artStem, type Picture, type Project, type Source, type SourceId, sourceById } from "../model";
import type { ChangedPicture } from "./changed-art";
import { type ClipNews, NO_NEWS, withClipsAsTold } from "./clips-as-told";
import type { ToldOfSource } from "./told-of-source";

/** Whether an animation file, with these pictures, shows them for other times than it did before, as far as that is known. */
export function hasOtherTimes({ pictures }: Pick<Source, "pictures">, changed: readonly Pick<Picture, "duration">[]): boolean {
  return areTimed(pictures) && areTimed(changed) && changed.some(({ duration }, k) => duration !== pictures[k]?.duration);
}

/**
 * The project with the clips of an animation's source as its file has them now, where nobody changed them. `before` is the project as it was,
 * `after` the same with the source's new pictures; `given` are these as they came: without times they say nothing of clips.
 */
export function withAnimationFollowed(
  before: Project,
  after: Project,
  id: SourceId,
  given: readonly ChangedPicture[],
): { readonly project: Project; readonly news: ClipNews } {
  const [was, is] = [toldBy(sourceById(before, id)), toldBy(sourceById(after, id))];
  if (!was || !is || !areTimed(given)) return { project: after, news: NO_NEWS };
  return withClipsAsTold(before, after, id, is, was, { add: "none", removeGone: false });
}

/** What the file of an animation said: all pictures in turn, each for its time. Null if that is not known. */
function toldBy(source: Source): ToldOfSource | null {
  const { pictures } = source;
  const times = pictures.flatMap(({ duration }) => duration ?? []);
  if (times.length < pictures.length || times.length < 2) return null;
  const stem = artStem(source);
  return {
    frames: pictures.map(({ width, height }, k): NewFrame => {
      const rect = { x: 0, y: 0, w: width, h: height };
      return { key: `p${k}`, column: k, row: 0, number: k, rect, picture: k, empty: false };
    }),
    clips: [
      {
        name: stem.slice(stem.lastIndexOf("/") + 1),
        steps: times.map((duration, frame) => ({ frame, duration, place: frame })),
        playback: "loop",
        times: 0,
      },
    ],
  };
}

function areTimed(pictures: readonly Pick<Picture, "duration">[]): boolean {
  return pictures.every(({ duration }) => duration !== undefined);
}
