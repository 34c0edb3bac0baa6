/** Keeps sources apart that both sides added under the same new id. */
import type { FrameRef, Project, SourceId } from "../model";
import { same } from "./three-way";

/** Their version with new ids for whatever it added under an id that ours uses for something else. */
export function withOwnIds(base: Project, ours: Project, theirs: Project): Project {
  const known = new Set<string>(base.sources.map(({ id }) => id));
  const added = new Map(ours.sources.filter(({ id }) => !known.has(id)).map((source) => [source.id as string, source]));
  const taken = new Set([...base.sources, ...ours.sources, ...theirs.sources].map(({ id }) => Number(id.slice(1))));
  const become = new Map<string, string>();
  for (const source of theirs.sources) {
    const other = added.get(source.id);
    if (!other || same(other, source) || isSameArt(other, source)) continue;
    let number = 1;
    while (taken.has(number)) number++;
    taken.add(number);
    become.set(source.id, `s${number}`);
  }
  return become.size === 0 ? theirs : withIds(theirs, become);
}

/** Both added the same picture: it is one source, and what differs of it is compared field by field. */
function isSameArt(a: Project["sources"][number], b: Project["sources"][number]): boolean {
  const hashes = ({ pictures }: typeof a) => pictures.map(({ sha256 }) => sha256).join();
  return a.name === b.name && a.pictures.length > 0 && hashes(a) === hashes(b);
}

function withIds(project: Project, become: ReadonlyMap<string, string>): Project {
  const idOf = (id: SourceId) => (become.get(id) ?? id) as SourceId;
  const refOf = (ref: FrameRef): FrameRef => {
    const slash = ref.indexOf("/");
    return `${idOf(ref.slice(0, slash) as SourceId)}${ref.slice(slash)}` as FrameRef;
  };
  return {
    ...project,
    sources: project.sources.map((source) => ({
      ...source,
      id: idOf(source.id),
      frames: source.frames.map((frame) =>
        frame.pieces ? { ...frame, pieces: frame.pieces.map((piece) => ({ ...piece, of: refOf(piece.of) })) } : frame,
      ),
    })),
    clips: project.clips.map((clip) => ({ ...clip, steps: clip.steps.map((step) => ({ ...step, frame: refOf(step.frame) })) })),
    deliveries: project.deliveries.map((delivery) =>
      delivery.choice.frames ? { ...delivery, choice: { ...delivery.choice, frames: delivery.choice.frames.map(refOf) } } : delivery,
    ),
    ...(project.stages
      ? {
          stages: project.stages.map((stage) =>
            typeof stage.backdrop === "object" ? { ...stage, backdrop: { source: idOf(stage.backdrop.source) } } : stage,
          ),
        }
      : {}),
  };
}
