/** Proposals for a single sheet: what it may be cut into, and which clips its rows would be. */
import { cutByGrid, cutOfSuggestion, type GridSuggestion, gridOf } from "../cut";
import { counted, type GridCut, USUAL_STEP, type Ways } from "../model";
import type { Coverage } from "../raster";
import { t } from "../words";
import { stillOf, type TakenItem } from "./drop-contents";
import { withoutEnding } from "./names";
import { type Choices, clearingFor, type Proposal, type ProposedClip, type SheetCut, USUAL_CHOICES } from "./proposal";

/** The suggested grid of a sheet, and the drawing with its background ignored. */
export interface SeenGrid {
  readonly suggestion: GridSuggestion;
  readonly coverage: Coverage;
}

const NONE = { x: 0, y: 0 };

/** The whole picture as one frame. */
export const WHOLE: GridCut = { by: "count", columns: 1, rows: 1, margin: NONE, gap: NONE, keepEmpty: true };

/** `usual` is the default cut. */
export function sheetProposal(item: TakenItem, name: string, seen: SeenGrid | undefined, usual: SheetCut): Proposal {
  const picture = stillOf(item);
  const { width, height, ground } = picture;
  const cutFor = ({ cut }: Choices): GridCut | undefined =>
    cut === "later" ? undefined : cut === "whole" || !seen ? WHOLE : cutOfSuggestion(seen.suggestion);
  const coverageFor = ({ clear }: Choices) => (ground && clear && seen ? seen.coverage : picture.coverage);
  const stem = withoutEnding(name);
  const clips = (choices: Choices): ProposedClip[] => {
    const cut = cutFor(choices);
    if (!cut || choices.cut === "cells") return [];
    const { cells } = cutByGrid(coverageFor(choices), gridOf({ w: width, h: height }, cut, name), cut.keepEmpty);
    const rows = [...new Set(cells.map(({ row }) => row))];
    return rows.map((row): ProposedClip => {
      const own = cells.flatMap((cell, frame) => (cell.row === row ? [{ frame, rect: cell.rect }] : []));
      return {
        ref: `${item.path}\n${row}`,
        name: rows.length === 1 ? stem : `${stem}-${row}`,
        steps: own.map(({ frame }) => ({ frame, duration: USUAL_STEP })),
        ...{ playback: "loop", times: 0 },
        shows: own.map(({ rect }) => ({ sha256: picture.sha256, ...clearingFor(ground, choices), rect })),
      };
    });
  };
  return {
    id: item.path,
    name,
    what: t("A sheet of {width} × {height} px", { width, height }),
    notes: [],
    shows: [picture],
    kind: "sheet",
    ground,
    usual: { ...USUAL_CHOICES, cut: usual },
    cuts: waysToCut(seen?.suggestion),
    clips,
    arrivals: (choices) => {
      const cut = cutFor(choices);
      return [
        {
          name,
          pictures: [{ sha256: picture.sha256, width, height }],
          ...clearingFor(ground, choices),
          ...(cut ? { cut, coverages: [coverageFor(choices)], clips: choices.clips ? clips(choices) : [] } : {}),
        },
      ];
    },
  };
}

function waysToCut(grid: GridSuggestion | undefined): [SheetCut, string][] {
  const whole: [SheetCut, string][] = [
    ["later", t("Cut it later")],
    ["whole", t("One frame")],
  ];
  if (!grid || grid.columns * grid.rows < 2) return whole;
  const { columns, rows, cell } = grid;
  const size = t("{columns} × {rows} cells of {w} × {h}", { columns, rows, w: cell.w, h: cell.h });
  if (rows === 1) return [...whole, ["rows", t("{size}, one clip", { size })]];
  const ways = waysOfRows(rows);
  return [
    ...whole,
    ["cells", size],
    ["rows", t("{size}, a clip for each row", { size })],
    ...(ways !== null && columns > 1
      ? ([["facings", t("{rows} as {ways} facings", { rows: counted(rows, "row"), ways })]] as [SheetCut, string][])
      : []),
  ];
}

/** The rose that this many rows may form: of three or five, the missing facings are mirrored. Null if there is none. */
export function waysOfRows(rows: number): Ways | null {
  return rows === 2 ? 2 : rows === 3 || rows === 4 ? 4 : rows === 5 || rows === 8 ? 8 : null;
}

/**
 * The default cuts for the sheets of a drop. Sheets whose names form one movement in several facings are cut immediately: into the cells of
 * their one row, or used whole if no cells are suggested.
 */
export function usualCuts(sheets: readonly TakenItem[], facing: ReadonlySet<TakenItem>, grids: ReadonlyMap<string, SeenGrid>): SheetCut[] {
  return sheets.map((item) => {
    if (!facing.has(item)) return "later";
    const grid = grids.get(item.path)?.suggestion;
    if (!grid || grid.columns * grid.rows < 2) return "whole";
    return grid.rows === 1 ? "rows" : "later";
  });
}

/** Sheets of one size that belong together use the grid that most of them suggest. */
export function agreedGrids(groups: readonly (readonly TakenItem[])[], grids: ReadonlyMap<string, SeenGrid>): Map<string, SeenGrid> {
  const agreed = new Map(grids);
  for (const group of groups) {
    const sizes = new Set(group.map((item) => `${stillOf(item).width} ${stillOf(item).height}`));
    if (sizes.size !== 1) continue;
    const votes = new Map<string, { count: number; suggestion: GridSuggestion }>();
    for (const { path } of group) {
      const suggestion = grids.get(path)?.suggestion;
      if (!suggestion) continue;
      const key = JSON.stringify(cutOfSuggestion(suggestion));
      votes.set(key, { count: (votes.get(key)?.count ?? 0) + 1, suggestion });
    }
    const [most] = [...votes.values()].sort((a, b) => b.count - a.count);
    if (!most) continue;
    for (const item of group) {
      const own = grids.get(item.path);
      agreed.set(item.path, { suggestion: most.suggestion, coverage: own?.coverage ?? stillOf(item).coverage });
    }
  }
  return agreed;
}
