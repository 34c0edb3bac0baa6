/** Keeps what both sides have added under one name, each its own: theirs gets another name before the two are merged. */
import { freeName, type Project } from "../model";
import { merged, same } from "../three-way";
import { t } from "../words";
import type { Conflict } from "./conflict";
import { RENAMES } from "./renames";

interface Named {
  readonly name: string;
}

/** Lists whose items are identified by name. */
const LISTS = [...(Object.keys(RENAMES) as (keyof typeof RENAMES)[]), "deliveries", "drives", "examples"] as const;
type List = (typeof LISTS)[number];

/** Their version, in which items that both have added under one name, but that say different things, have another name, and all references follow. */
export function withAddedApart(base: Project, ours: Project, theirs: Project, conflict: (found: Conflict) => void): Project {
  let next = theirs;
  for (const list of LISTS) {
    const [before, own] = [byName(base, list), byName(ours, list)];
    for (const { name } of itemsOf(theirs, list)) {
      const [mine, hers] = [own.get(name), byName(next, list).get(name)];
      if (before.has(name) || !mine || !hers || !isAnother(list, mine, hers)) continue;
      const taken = [before, own, byName(next, list)];
      const to = freeName(name, (wanted) => taken.some((items) => items.has(wanted)));
      next = renamed(next, list, name, to);
      conflict({ where: `${list}, ${name}`, message: t("Both sides have added one of this name; theirs is called {to} now.", { to }) });
    }
  }
  return next;
}

/** Whether two added items are different things: a mark by its shape, all others if something of them would be lost in a merge. */
function isAnother(list: List, mine: Named, hers: Named): boolean {
  if (same(mine, hers)) return false;
  if (list === "marks") return (mine as { shape?: string }).shape !== (hers as { shape?: string }).shape;
  let clashes = false;
  merged(undefined, mine, hers, [list, mine.name], () => {
    clashes = true;
  });
  return clashes;
}

function renamed(project: Project, list: List, from: string, to: string): Project {
  if (list in RENAMES) return RENAMES[list as keyof typeof RENAMES](project, from, to);
  const items = itemsOf(project, list).map((each) => (each.name === from ? { ...each, name: to } : each));
  const next = { ...project, [list]: items } as Project;
  if (list !== "examples") return next;
  return {
    ...next,
    deliveries: next.deliveries.map((each) => (each.data.example === from ? { ...each, data: { ...each.data, example: to } } : each)),
  };
}

function itemsOf(project: Project, list: List): readonly Named[] {
  return (project[list] ?? []) as readonly Named[];
}

function byName(project: Project, list: List): ReadonlyMap<string, Named> {
  return new Map(itemsOf(project, list).map((item) => [item.name, item]));
}
