import type { Project, SourceId } from "../model";

/** Returns an id that no source has and no piece refers to, so that a removed source never comes back as another one. */
export function freeSourceId({ sources }: Pick<Project, "sources">): SourceId {
  let most = 0;
  const see = (id: string) => {
    most = Math.max(most, Number(id.slice(1)));
  };
  for (const { id, frames } of sources) {
    see(id);
    for (const { pieces = [] } of frames) for (const { of } of pieces) see(of.slice(0, of.indexOf("/")));
  }
  return `s${most + 1}` as SourceId;
}
