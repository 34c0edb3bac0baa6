/** Visits every reference to a source, most of them by way of a frame: in clips, pieces, deliveries and stages. */
import type { FrameRef, Project, SourceId } from "../model";

/** What refers to a source. */
export interface Naming {
  readonly source: SourceId;
  readonly by: "clip" | "pieces" | "delivery" | "stage";
  /** Of the clip, the source of pieces, the delivery or the stage. */
  readonly name: string;
}

/** Each source that something refers to, whether or not the project has it; once for each of what refers to it. */
export function sourcesNamed({ sources, clips, deliveries, stages = [] }: Project): Naming[] {
  const found = new Map<string, Naming>();
  const see = (source: SourceId, by: Naming["by"], name: string) => found.set(JSON.stringify([source, by, name]), { source, by, name });
  for (const { name, frames } of sources)
    for (const { pieces = [] } of frames) for (const { of } of pieces) see(sourceOf(of), "pieces", name);
  for (const { name, steps } of clips) for (const id of new Set(steps.map(({ frame }) => sourceOf(frame)))) see(id, "clip", name);
  for (const { name, choice } of deliveries) for (const id of new Set((choice.frames ?? []).map(sourceOf))) see(id, "delivery", name);
  for (const { name, backdrop } of stages) if (typeof backdrop === "object") see(backdrop.source, "stage", name);
  return [...found.values()];
}

/** The project with other ids for some of its sources, wherever they are named. */
export function withSourceIds(project: Project, become: ReadonlyMap<SourceId, SourceId>): Project {
  const idOf = (id: SourceId) => become.get(id) ?? id;
  const refOf = (ref: FrameRef): FrameRef => `${idOf(sourceOf(ref))}${ref.slice(ref.indexOf("/"))}` as FrameRef;
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

/** The source of a frame, which its reference begins with. */
function sourceOf(ref: FrameRef): SourceId {
  return ref.slice(0, ref.indexOf("/")) as SourceId;
}
