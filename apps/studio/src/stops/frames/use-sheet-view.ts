"use client";

import type { Size, Source } from "@caravan/core/model";
import { useCallback, useMemo, useState } from "react";
import { fitted, opening, type SheetView } from "./sheet-view";

/** How the sheet is laid out: by itself, whole because a person asked, or where a person moved it. */
type Laid = "opening" | "whole" | SheetView;

interface SheetViewState {
  /** Null until there is room. */
  readonly view: SheetView | null;
  /** Zooms or pans; from then on the sheet stays where it is put. */
  move(change: (view: SheetView) => SheetView): void;
  seeAll(): void;
  /** Keeps the sheet where it lies, whatever room comes or goes around it. */
  hold(): void;
}

/**
 * The view of a source's sheet. Until a person touches it, it is laid out anew for whatever room the
 * fields around it leave, so that no row hides below the edge. Another sheet begins afresh.
 */
export function useSheetView({ id }: Source, sheet: Size, room: Size): SheetViewState {
  const [state, setState] = useState<{ of: string; laid: Laid }>({ of: id, laid: "opening" });
  const of = `${id} ${sheet.w} ${sheet.h}`;
  const laid = state.of === of ? state.laid : "opening";
  const view = useMemo(() => shown(laid, sheet, room), [laid, sheet, room]);
  const move = useCallback(
    (change: (view: SheetView) => SheetView) =>
      setState((now) => {
        const from = shown(now.of === of ? now.laid : "opening", sheet, room);
        return from ? { of, laid: change(from) } : now;
      }),
    [of, sheet, room],
  );
  const seeAll = useCallback(() => setState({ of, laid: "whole" }), [of]);
  const hold = useCallback(() => move((view) => view), [move]);
  return { view, move, seeAll, hold };
}

function shown(laid: Laid, sheet: Size, room: Size): SheetView | null {
  if (room.w === 0) return null;
  if (laid === "opening") return opening(sheet, room);
  return laid === "whole" ? fitted(sheet, room) : laid;
}
