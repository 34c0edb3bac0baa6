import { type Action, type ActionName, type ClipName, fittedName, freeName, type Project } from "../model";

/** Makes actions in other colours of those whose clips are all recoloured. */
export function actionsInOtherColours({ actions }: Project, palette: string, dressed: ReadonlyMap<ClipName, ClipName>): Action[] {
  const taken = new Set<string>(actions.map(({ name }) => name));
  return actions.flatMap((action) => {
    const petals = Object.entries(action.facings);
    if (petals.length === 0 || !petals.every(([, { clip }]) => dressed.has(clip))) return [];
    const name = freeName(fittedName(`${action.name}-${palette}`, 120) ?? "variant", taken) as ActionName;
    taken.add(name);
    const facings = Object.fromEntries(petals.map(([facing, petal]) => [facing, { ...petal, clip: dressed.get(petal.clip) as ClipName }]));
    return [{ ...action, name, facings }];
  });
}
