/** Proposals for movements in several facings, recognised by clip names or by the rows of a sheet. */
import type { ArrivedAction } from "../edit";
import { mirroredRows } from "../edit";
import { facingOfName, facingOfWord, matchFacings, mirrorOf, type NumberedFrom, roseFrom } from "../facing";
import { FACINGS_OF, type Facing, naturalOrder, type Ways } from "../model";
import type { Choices, FollowingClips, Proposal, ProposedClip } from "./proposal";
import { waysOfRows } from "./sheet";

/** What a facing of a proposed action would play. */
export interface ProposedPetal {
  readonly clip: ProposedClip;
  readonly mirrored: boolean;
}

export interface ProposedAction {
  readonly id: string;
  readonly action: ArrivedAction;
  /** Facings of its rose that would have something to play, mirrors among them. */
  readonly petals: Partial<Record<Facing, ProposedPetal>>;
  /** Whether the facings follow from an order and not from names: then the user must choose the first. */
  readonly byOrder: boolean;
  /** Refs of those of its clips that the project has already. */
  readonly there: ReadonlySet<string>;
  /** Whether it is made unless a person says no. Two clips that differ in a number are seldom two facings. */
  readonly usual: boolean;
}

/** The actions that the chosen things would make. `numbered` gives the facing of the first number or row. */
export function proposedActions(
  proposals: readonly Proposal[],
  choicesOf: (proposal: Proposal) => Choices,
  numbered: NumberedFrom,
): ProposedAction[] {
  const rows: ProposedAction[] = [];
  const groups = new Map<string, ProposedClip[]>();
  const old = new Set<string>();
  for (const proposal of proposals) {
    const choices = choicesOf(proposal);
    if (!choices.include || !choices.clips) continue;
    const isThere = proposal.kind === "recut" || choices.replaces;
    const { all: clips, added } = isThere ? (proposal.following ?? NONE) : { all: proposal.clips(choices), added: null };
    if (added) for (const { ref } of clips) if (!added.has(ref)) old.add(ref);
    if (choices.cut === "facings") rows.push(...actionOfRows(proposal, clips, numbered, old));
    else {
      // Two folders may hold two figures whose clips have the same names.
      const folder = folderOf(proposal);
      groups.set(folder, [...(groups.get(folder) ?? []), ...clips]);
    }
  }
  const named = [...groups].flatMap(([folder, clips]) => actionsByName(folder, clips, numbered, old));
  const isOfNew = ({ action }: ProposedAction) => Object.values(action.facings).some((ref) => !old.has(ref));
  return [...distinct(named.filter(isOfNew)), ...rows];
}

const NONE: FollowingClips = { all: [], added: new Set() };

function actionsByName(
  folder: string,
  clips: readonly ProposedClip[],
  numbered: NumberedFrom,
  there: ReadonlySet<string>,
): ProposedAction[] {
  // The first of two that have one name; the others are clips all the same.
  const byName = new Map(clips.toReversed().map((clip) => [clip.name, clip]));
  return matchFacings([...byName.keys()], numbered).map(({ stem, ways, facings, byNumber }) => {
    const own = Object.fromEntries(Object.entries(facings).map(([facing, name]) => [facing, byName.get(name) as ProposedClip]));
    return {
      id: `${folder}\n${stem}`,
      action: { name: stem, ways, facings: refsOf(own), mirror: true, namesClips: false },
      petals: withMirrors(ways, own),
      byOrder: byNumber,
      there,
      usual: !byNumber || ways > 2,
    };
  });
}

function actionOfRows(
  { id, name }: Proposal,
  clips: readonly ProposedClip[],
  numbered: NumberedFrom,
  there: ReadonlySet<string>,
): ProposedAction[] {
  const ways = waysOfRows(clips.length);
  if (ways === null) return [];
  const order = clips.length === ways ? roseFrom(ways, numbered) : mirroredRows(ways, clips.length);
  const own = Object.fromEntries(clips.map((clip, k) => [order[k], clip])) as Partial<Record<Facing, ProposedClip>>;
  const stem = facingOfName(name.replace(/\.[^.]*$/, "")).stem;
  return [
    {
      id,
      action: { name: stem, ways, facings: refsOf(own), mirror: true, namesClips: true },
      petals: withMirrors(ways, own),
      byOrder: true,
      there,
      usual: true,
    },
  ];
}

function refsOf(clips: Partial<Record<Facing, ProposedClip>>): ArrivedAction["facings"] {
  return Object.fromEntries(Object.entries(clips).map(([facing, { ref }]) => [facing, ref]));
}

function withMirrors(ways: Ways, own: Partial<Record<Facing, ProposedClip>>): ProposedAction["petals"] {
  const petals: Partial<Record<Facing, ProposedPetal>> = {};
  for (const facing of FACINGS_OF[ways]) {
    const clip = own[facing] ?? own[mirrorOf(facing)];
    if (clip) petals[facing] = { clip, mirrored: own[facing] === undefined };
  }
  return petals;
}

/** Distinguishes movements of one name in two folders. */
function distinct(actions: readonly ProposedAction[]): ProposedAction[] {
  const counts = new Map<string, number>();
  for (const { action } of actions) counts.set(action.name, (counts.get(action.name) ?? 0) + 1);
  return actions
    .map((each) => {
      const parts = each.id.slice(0, each.id.indexOf("\n")).split("/");
      const folder = parts.filter((part) => part !== "" && part !== each.action.name).pop();
      if ((counts.get(each.action.name) ?? 0) < 2 || folder === undefined) return each;
      return { ...each, action: { ...each.action, name: `${folder}-${each.action.name}` } };
    })
    .sort((a, b) => naturalOrder(a.action.name, b.action.name));
}

/** The folder of its first file; for series, the parent folder if each facing has its own. */
function folderOf({ id, kind }: Proposal): string {
  const first = id.split("\n")[0] as string;
  const parts = first.split("/").slice(0, -1);
  const ownFolder = kind === "series" && parts.length > 0 && facingOfWord(parts.at(-1) as string) !== null;
  return (ownFolder ? parts.slice(0, -1) : parts).join("/");
}
