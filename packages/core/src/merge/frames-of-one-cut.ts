/** Keeps the frames of two cuts of one source apart: frames that a side has added belong to its way of cutting. */
import { frameName, type Project, type Source } from "../model";
import { same } from "../three-way";
import { t } from "../words";
import type { Conflict } from "./conflict";
import { sourcesById, type Versions } from "./versions";

/**
 * All three versions, without the frames that do not belong to the cut that will be taken: where one side cut a source another way, the
 * frames that the other side added; where both did, each in its own way, all that theirs has made of the frames by that.
 */
export function withFramesOfOneCut(versions: Versions, conflict: (found: Conflict) => void): Versions {
  const [before, mine, hers] = [sourcesById(versions.base), sourcesById(versions.ours), sourcesById(versions.theirs)];
  const ours = new Map<string, Source>();
  const theirs = new Map<string, Source>();
  for (const [id, base] of before) {
    const [own, other] = [mine.get(id), hers.get(id)];
    if (!own || !other || same(own.cut, other.cut)) continue;
    const [weDid, theyDid] = [!same(base.cut, own.cut), !same(base.cut, other.cut)];
    // The clash of the two cuts is reported by the comparison itself.
    if (weDid && theyDid) theirs.set(id, { ...other, frames: changedFrames(base, own, other) });
    else {
      const [side, kept] = weDid ? ([theirs, other] as const) : ([ours, own] as const);
      const known = new Set(base.frames.map(({ key }) => key));
      const added = kept.frames.filter(({ key }) => !known.has(key));
      if (added.length === 0) continue;
      side.set(id, { ...kept, frames: kept.frames.filter(({ key }) => known.has(key)) });
      const names = added.slice(0, MOST_NAMED).map((frame) => frameName(kept, frame));
      const more = added.length - names.length;
      conflict({
        where: `sources, ${kept.name}, frames`,
        message:
          more > 0
            ? t("One side cut it another way. Left out are frames that the other added: {names} and {more} more.", {
                names: names.join(", "),
                more,
              })
            : t("One side cut it another way. Left out are frames that the other added: {names}.", { names: names.join(", ") }),
      });
    }
  }
  return { ...versions, ours: withSources(versions.ours, ours), theirs: withSources(versions.theirs, theirs) };
}

const MOST_NAMED = 4;

/** The frames of the base, with the names and data that theirs has given to those that our cut has as well: marks lie in their rectangles. */
function changedFrames(base: Source, ours: Source, theirs: Source): Source["frames"] {
  const common = new Set(ours.frames.map(({ key }) => key));
  const changed = new Map(theirs.frames.map((frame) => [frame.key, frame]));
  return base.frames.map((frame) => {
    const other = common.has(frame.key) ? changed.get(frame.key) : undefined;
    if (!other) return frame;
    const { name: _n, data: _d, dropped: _g, ...place } = frame;
    const { name, data, dropped } = other;
    return { ...place, ...(name ? { name } : {}), ...(data ? { data } : {}), ...(dropped ? { dropped } : {}) };
  });
}

function withSources(project: Project, become: ReadonlyMap<string, Source>): Project {
  return become.size === 0 ? project : { ...project, sources: project.sources.map((source) => become.get(source.id) ?? source) };
}
