"use client";

import { type Frame, frameName, frameRef, keptRefs, type Source } from "@caravan/core/model";
import { useDraggable, useDroppable } from "@dnd-kit/core";
import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useEffect, useId, useMemo, useRef } from "react";
import { pickRun, togglePick, useView } from "../project/view";
import { Later } from "../ui/later";
import { nameAnd, t } from "../ui/words";
import { useFrameNumber } from "./frame-number";
import { FramePicture } from "./frame-picture";

const CELL = 60; // px, with the space after it

/**
 * The frames of a sheet in order, numbered. Click picks, Shift+click a run; those picked carry their picking number. Frames
 * can be dragged where someone takes them: into a ribbon, or to another place among themselves. Only what is in sight is drawn.
 */
export const FrameStrip = memo(function FrameStrip({ source, sortable = false }: { source: Source; sortable?: boolean }) {
  return (
    <div className="min-h-19">
      <Later>
        <Strip source={source} sortable={sortable} />
      </Later>
    </div>
  );
});

function Strip({ source, sortable }: { source: Source; sortable: boolean }) {
  const strip = useRef<HTMLDivElement>(null);
  const id = useId();
  const picked = useView((view) => view.picked);
  const cursor = useView((view) => view.cursor);
  const { frames } = source;
  const list = useVirtualizer({
    horizontal: true,
    count: frames.length,
    getScrollElement: () => strip.current,
    estimateSize: () => CELL,
    overscan: 8,
  });
  const numbers = useMemo(() => new Map(picked.map((ref, k) => [ref, k + 1])), [picked]);
  const cursorIndex = useMemo(
    () => (cursor === null ? -1 : source.frames.findIndex((frame) => frameRef(source, frame) === cursor)),
    [source, cursor],
  );
  useEffect(() => {
    if (cursorIndex >= 0) list.scrollToIndex(cursorIndex, { align: "center" });
  }, [cursorIndex, list]);
  const shown = list.getVirtualItems();
  return (
    <div
      ref={strip}
      role="listbox"
      aria-label={t("Frames of {name}", { name: source.name })}
      aria-multiselectable
      aria-orientation="horizontal"
      aria-activedescendant={shown.some(({ index }) => index === cursorIndex) ? `${id}-${cursorIndex}` : undefined}
      tabIndex={0}
      className="overflow-x-auto overflow-y-hidden"
    >
      <div className="relative h-19" style={{ width: list.getTotalSize() }}>
        {shown.map(({ index, start }) => {
          const frame = frames[index] as Frame;
          const ref = frameRef(source, frame);
          return (
            <StripItem
              key={frame.key}
              id={`${id}-${index}`}
              index={index}
              source={source}
              frame={frame}
              number={numbers.get(ref)}
              atCursor={ref === cursor}
              left={start}
              sortable={sortable}
            />
          );
        })}
      </div>
    </div>
  );
}

interface ItemProps {
  readonly id: string;
  readonly index: number;
  readonly source: Source;
  readonly frame: Frame;
  readonly number: number | undefined;
  readonly atCursor: boolean;
  readonly left: number;
  /** Whether another frame can be dropped here, before it. */
  readonly sortable: boolean;
}

function StripItem({ id, index, source, frame, number, atCursor, left, sortable }: ItemProps) {
  const ref = frameRef(source, frame);
  const { setNodeRef, listeners, isDragging } = useDraggable({
    id: `frame ${ref}`,
    data: { frame: ref },
    disabled: frame.dropped === true,
  });
  const place = useDroppable({ id: `place ${ref}`, data: { before: ref }, disabled: !sortable });
  const pick = (extend: boolean) => {
    if (frame.dropped) useView.setState({ cursor: ref });
    else if (extend) pickRun(keptRefs(source), ref);
    else togglePick(ref);
  };
  const name = frameName(source, frame);
  const numberOf = useFrameNumber(source);
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: keys act on the cursor, for the whole strip
    <div
      ref={(element) => {
        setNodeRef(element);
        place.setNodeRef(element);
      }}
      role="option"
      id={id}
      aria-posinset={index + 1}
      aria-setsize={source.frames.length}
      data-frame={ref}
      aria-selected={number !== undefined}
      aria-label={nameAnd(name, frame.dropped && t("dropped"), number !== undefined && t("picked {number}", { number }))}
      title={name}
      tabIndex={-1}
      onClick={(event) => pick(event.shiftKey)}
      {...listeners}
      className={`absolute top-0 cursor-pointer touch-pan-x ${isDragging ? "opacity-50" : ""} ${place.isOver && !isDragging ? "border-l-4 border-now" : ""}`}
      style={{ left, width: CELL - 4 }}
    >
      <span
        className={`check relative block border-2 ${number ? "border-now" : atCursor ? "border-ink" : "border-transparent"} ${frame.dropped ? "opacity-40" : ""}`}
      >
        <FramePicture source={source} frame={frame} size={52} className="block" />
        {number && <span className="number absolute top-0 right-0 bg-now px-1 text-small font-semibold text-on-now">{number}</span>}
      </span>
      {/* Names of one sheet differ at their ends, so a long one loses its beginning. */}
      <span dir="rtl" className="number block truncate text-center text-small text-muted">
        <bdi>{frame.dropped ? t("dropped") : (frame.name ?? numberOf(frame))}</bdi>
      </span>
    </div>
  );
}
