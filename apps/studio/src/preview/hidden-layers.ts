/** Remembers which layers are hidden, in all views of this tab. Neither stored nor delivered. */
import type { Project } from "@caravan/core/model";
import { create } from "zustand";
import { useOpenProject } from "../project/open-project";

/** Names of layers; null stands for the sources' own pictures. */
export type HiddenLayers = ReadonlySet<string | null>;

const NONE: HiddenLayers = new Set();

export const useHiddenLayers = create<{ readonly hidden: HiddenLayers }>(() => ({ hidden: NONE }));

// Another project has other layers.
useOpenProject.subscribe((open, before) => {
  if (open.id !== before.id) useHiddenLayers.setState({ hidden: NONE });
});

/** The project's layers, with null first for the sources' own pictures. Empty if no source has layers. */
export function layersToSee({ sources }: Pick<Project, "sources">): readonly (string | null)[] {
  const names = new Set(sources.flatMap(({ layers = [] }) => layers.map(({ name }) => name)));
  return names.size === 0 ? [] : [null, ...names];
}

export function showLayer(name: string | null, shown: boolean): void {
  const hidden = new Set(useHiddenLayers.getState().hidden);
  if (shown) hidden.delete(name);
  else hidden.add(name);
  useHiddenLayers.setState({ hidden: hidden.size === 0 ? NONE : hidden });
}

/** Shows one layer alone; all of them again if it is alone already. */
export function soloLayer(name: string | null, all: readonly (string | null)[]): void {
  const others = all.filter((each) => each !== name);
  const { hidden } = useHiddenLayers.getState();
  const isAlone = !hidden.has(name) && others.every((each) => hidden.has(each));
  useHiddenLayers.setState({ hidden: isAlone ? NONE : new Set(others) });
}

export function showAllLayers(): void {
  useHiddenLayers.setState({ hidden: NONE });
}
