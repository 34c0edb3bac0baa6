/** Keeps sources apart that both sides added under the same new id. */
import type { Project, SourceId } from "../model";
import { sourcesNamed, withSourceIds } from "../references";
import { same } from "../three-way";

/** Their version with new ids for whatever it added under an id that ours uses for something else. */
export function withOwnIds(base: Project, ours: Project, theirs: Project): Project {
  const known = new Set<string>(base.sources.map(({ id }) => id));
  const added = new Map(ours.sources.filter(({ id }) => !known.has(id)).map((source) => [source.id, source]));
  const taken = new Set<SourceId>(
    [base, ours, theirs].flatMap((version) => [
      ...version.sources.map(({ id }) => id),
      ...sourcesNamed(version).map(({ source }) => source),
    ]),
  );
  const become = new Map<SourceId, SourceId>();
  for (const source of theirs.sources) {
    const other = added.get(source.id);
    if (!other || same(other, source) || isSameArt(other, source)) continue;
    let number = 1;
    while (taken.has(`s${number}` as SourceId)) number++;
    const id = `s${number}` as SourceId;
    taken.add(id);
    become.set(source.id, id);
  }
  return become.size === 0 ? theirs : withSourceIds(theirs, become);
}

/** Both added the same picture: it is one source, and what differs of it is compared field by field. */
function isSameArt(a: Project["sources"][number], b: Project["sources"][number]): boolean {
  const hashes = ({ pictures }: typeof a) => pictures.map(({ sha256 }) => sha256).join();
  return a.name === b.name && a.pictures.length > 0 && hashes(a) === hashes(b);
}
