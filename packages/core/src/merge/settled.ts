/**
 * Puts a merged project right where changes of both sides, each fine by itself, do not fit together: an item that makes it invalid becomes
 * ours again, a second source of one name gets another name.
 */
import { checkDocument, freeName, type Project } from "../model";
import { same } from "../three-way";
import { t } from "../words";
import type { Conflict } from "./conflict";

const LISTS = ["sources", "clips", "actions", "marks", "palettes", "parts", "behaviours", "stages", "drives", "deliveries"] as const;

interface Item {
  readonly id?: string;
  readonly name: string;
}
type Lists = Readonly<Partial<Record<(typeof LISTS)[number], readonly Item[]>>>;

/**
 * `completed` restores what the project needs, as it will afterwards. Cost: one check of the whole for each list and each item of the
 * failing ones; nothing is checked twice if the merge is valid.
 */
export function settled(
  merged: Project,
  ours: Project,
  completed: (project: Project) => Project,
  conflict: (found: Conflict) => void,
): Project {
  const opens = (project: Project) => isValid(completed(project));
  let project = withADelivery(withNamesOfSources(merged, ours, conflict), ours, conflict);
  if (opens(project)) return project;
  for (const list of LISTS) {
    const mine = new Map(((ours as Lists)[list] ?? []).map((item) => [keyOf(item), item]));
    const own = (item: Item): Item => mine.get(keyOf(item)) ?? item;
    const items = (project as Lists)[list] ?? [];
    const withItems = (each: (item: Item) => Item): Project => ({ ...project, [list]: items.map(each) });
    if (items.every((item) => same(item, own(item))) || !opens(withItems(own))) continue;
    const unfit = new Set(items.filter((one) => !same(one, own(one)) && !opens(withItems((each) => (each === one ? each : own(each))))));
    for (const { name } of unfit)
      conflict({ where: `${list}, ${name}`, message: t("What each side changed of it does not fit together; ours is kept.") });
    project = withItems((each) => (unfit.has(each) ? own(each) : each));
    if (opens(project)) return project;
  }
  return project;
}

/** Lists are keyed by name, apart from sources, whose ids stay. */
function keyOf({ id, name }: Item): string {
  return id ?? name;
}

/** Two sides can give one name to two sources; ours keeps it. */
function withNamesOfSources(project: Project, ours: Project, conflict: (found: Conflict) => void): Project {
  const taken = new Set(project.sources.map(({ name }) => name));
  if (taken.size === project.sources.length) return project;
  const mine = new Map(ours.sources.map(({ id, name }) => [id, name]));
  const first = new Map(
    project.sources
      .toSorted((a, b) => rank(a, mine) - rank(b, mine))
      .map(({ id, name }) => [name, id] as const)
      .toReversed(),
  );
  return {
    ...project,
    sources: project.sources.map((source) => {
      if (first.get(source.name) === source.id) return source;
      const name = freeName(source.name, taken);
      taken.add(name);
      conflict({
        where: `sources, ${source.name}`,
        message: t("Both sides have a source of this name; theirs is called {name} now.", { name }),
      });
      return { ...source, name };
    }),
  };
}

/** Each side can remove another of two deliveries, and a project has at least one. */
function withADelivery(project: Project, { deliveries: [first] }: Project, conflict: (found: Conflict) => void): Project {
  if (project.deliveries.length > 0 || !first) return project;
  conflict({
    where: `deliveries, ${first.name}`,
    message: t("Each side removed another delivery, and a project has at least one; this one of ours is kept."),
  });
  return { ...project, deliveries: [first] };
}

/** Sources that have their name on our side come first. */
function rank({ id, name }: Project["sources"][number], mine: ReadonlyMap<string, string>): number {
  return mine.get(id) === name ? 0 : 1;
}

function isValid(project: Project): boolean {
  try {
    checkDocument(project, project.name);
    return true;
  } catch {
    return false;
  }
}
