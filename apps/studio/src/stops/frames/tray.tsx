"use client";

import type { Source } from "@caravan/core/model";
import type { ReactNode } from "react";
import { FrameStrip } from "../../preview/frame-strip";

/** The frames of the sheet in order, under it. */
export function Tray({ source, children }: { source: Source; children?: ReactNode }) {
  return (
    <section aria-label="Tray" className="shrink-0 rounded-box border border-line bg-surface px-2.5 pt-2 pb-1">
      <header className="mb-1.5 flex min-h-6 items-center justify-between gap-3">
        <h3 className="font-semibold text-muted">Tray · {source.frames.length} frames</h3>
        {children}
      </header>
      <FrameStrip source={source} />
    </section>
  );
}
