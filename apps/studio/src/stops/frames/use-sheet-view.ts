"use client";

import type { Source } from "@caravan/core/model";
import { useCallback, useMemo, useState } from "react";
import { fitted, onScreen, opening, type SheetView, type Surface } from "./sheet-view";

/** How the sheet is placed: automatically, fitted on request, or where the user moved it. */
type Laid = "opening" | "whole" | SheetView;

interface SheetViewState {
  /** Null until there is room. */
  readonly view: SheetView | null;
  /** Zooms or pans; from then on the sheet stays where it is put. */
  move(change: (view: SheetView) => SheetView): void;
  seeAll(): void;
  /** Keeps the sheet in place when the space around it changes. */
  hold(): void;
}

/**
 * The view of a source's sheet. Until the user moves it, it is fitted to the space that the fields around it leave, so that no row is
 * hidden. Another sheet starts again.
 */
export function useSheetView({ id }: Source, surface: Surface): SheetViewState {
  const { sheet } = surface;
  const [state, setState] = useState<{ of: string; laid: Laid }>({ of: id, laid: "opening" });
  const of = `${id} ${sheet.w} ${sheet.h}`;
  const laid = state.of === of ? state.laid : "opening";
  const view = useMemo(() => shown(laid, surface), [laid, surface]);
  const move = useCallback(
    (change: (view: SheetView) => SheetView) =>
      setState((now) => {
        const from = shown(now.of === of ? now.laid : "opening", surface);
        return from ? { of, laid: change(from) } : now;
      }),
    [of, surface],
  );
  const seeAll = useCallback(() => setState({ of, laid: "whole" }), [of]);
  const hold = useCallback(() => move((view) => view), [move]);
  return { view, move, seeAll, hold };
}

function shown(laid: Laid, surface: Surface): SheetView | null {
  if (surface.room.w === 0) return null;
  if (laid === "opening") return opening(surface);
  return laid === "whole" ? fitted(surface) : onScreen(laid, surface);
}
