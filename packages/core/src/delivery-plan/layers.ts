/** Lists a delivery's layers, collected from the sources of its frames. */
import type { Layer, Source } from "../model";

export type DeliveredLayer = Pick<Layer, "name" | "blend">;

/** Two sources that disagree about layers which would be one in a delivery. */
export interface LayersDisagree {
  readonly kind: "blend" | "order" | "spelling";
  /** The layer, as the first source has it. */
  readonly layer: DeliveredLayer;
  readonly first: Source;
  readonly other: Source;
}

/**
 * From below: a layer is above those that it is above in some source. Of layers that no source combines, the one of the earlier source is
 * lower.
 */
export function layersOf(sources: readonly Source[]): { layers: DeliveredLayer[]; disagree: LayersDisagree | null } {
  const owners = new Map<string, { readonly layer: DeliveredLayer; readonly source: Source }>();
  const above = new Map<string, Set<string>>();
  let disagree: LayersDisagree | null = null;
  for (const source of sources)
    for (const [k, { name, blend }] of (source.layers ?? []).entries()) {
      const key = name.toLowerCase();
      const before = owners.get(key);
      if (!before) owners.set(key, { layer: { name, blend }, source });
      else if (before.layer.blend !== blend || before.layer.name !== name)
        disagree ??= {
          ...{ kind: before.layer.blend === blend ? "spelling" : "blend", layer: before.layer },
          ...{ first: before.source, other: source },
        };
      const lower = above.get(key) ?? new Set();
      above.set(key, lower);
      for (const each of (source.layers ?? []).slice(0, k)) lower.add(each.name.toLowerCase());
    }
  const layers: DeliveredLayer[] = [];
  const left = new Map(owners);
  while (left.size > 0) {
    // Kahn's topological sort, the earliest candidate first.
    const free = [...left].find(([key]) => ![...(above.get(key) ?? [])].some((lower) => left.has(lower)));
    const [key, { layer, source }] = free ?? ([...left][0] as [string, { layer: DeliveredLayer; source: Source }]);
    if (!free) {
      const other = sources.find((each) => each !== source && isOrderedAmong(each, key, left)) ?? source;
      disagree ??= { kind: "order", layer, first: source, other };
    }
    layers.push(layer);
    left.delete(key);
  }
  return { layers, disagree };
}

/** Whether a source orders a layer among others of those that are left. */
function isOrderedAmong({ layers = [] }: Source, key: string, left: ReadonlyMap<string, unknown>): boolean {
  const own = layers.filter(({ name }) => left.has(name.toLowerCase()));
  return own.length > 1 && own.some(({ name }) => name.toLowerCase() === key);
}
