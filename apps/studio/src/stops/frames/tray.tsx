"use client";

import { moveFrames } from "@caravan/core/edit";
import { counted, type FrameRef, frameRef, type Source } from "@caravan/core/model";
import type { DragEndEvent } from "@dnd-kit/core";
import type { ReactNode } from "react";
import { FrameStrip } from "../../preview/frame-strip";
import { edit } from "../../project/open-project";
import { useView } from "../../project/view";
import { Dragging } from "../../ui/dragging";
import { sayUnlessDone } from "../../ui/notices";
import { type Menu, WithMenu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { frameMenu } from "./frame-menu";

/** Shows the sheet's frames in order, below the sheet; drag them to reorder. */
export function Tray({ source, children }: { source: Source; children?: ReactNode }) {
  return (
    <section
      data-region="tray"
      tabIndex={-1}
      aria-label={t("Tray")}
      className="shrink-0 rounded-box border border-line bg-surface px-2.5 pt-2 pb-1"
    >
      <header className="mb-1.5 flex min-h-6 items-center justify-between gap-3 max-[39.9375em]:flex-wrap">
        <h3 className="font-semibold text-muted">{t("Tray · {frames}", { frames: counted(source.frames.length, "frame") })}</h3>
        {children}
      </header>
      <Dragging id="tray" onDragEnd={(event) => dropped(source, event)}>
        <WithMenu label={t("Frame menu")} menuOf={menuOf}>
          <div>
            <FrameStrip source={source} sortable />
          </div>
        </WithMenu>
      </Dragging>
    </section>
  );
}

function menuOf(target: Element): Menu | null {
  const ref = target.closest<HTMLElement>("[data-frame]")?.dataset.frame;
  return ref === undefined ? null : frameMenu(ref as FrameRef);
}

/** A frame dragged onto another takes its place; if it is picked, all picked ones move along, in order. */
function dropped(source: Source, { active, over }: DragEndEvent): void {
  const ref = active.data.current?.frame as FrameRef | undefined;
  const target = over?.data.current?.before as FrameRef | undefined;
  if (!ref || !target || ref === target) return;
  const { picked } = useView.getState();
  const moving = picked.includes(ref) ? new Set<FrameRef>(picked) : new Set([ref]);
  const from = source.frames.findIndex((frame) => frameRef(source, frame) === ref);
  const at = source.frames.findIndex((frame) => frameRef(source, frame) === target);
  // Among those that stay, before the one it was dropped on; after it if it came from the left.
  const before = source.frames.slice(0, at).filter((frame) => !moving.has(frameRef(source, frame))).length;
  const keys = source.frames.filter((frame) => moving.has(frameRef(source, frame))).map(({ key }) => key);
  const error = edit(moveFrames, source.id, keys, from < at && !moving.has(target) ? before + 1 : before);
  sayUnlessDone(error);
}
