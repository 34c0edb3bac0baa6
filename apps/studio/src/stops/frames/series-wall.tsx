"use client";

import { frameLook } from "@caravan/core/art";
import { type Frame, frameName, frameRef, keptRefs, type Source } from "@caravan/core/model";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef } from "react";
import { FramePicture } from "../../preview/frame-picture";
import { loadPictures } from "../../project/pictures";
import { pickRun, togglePick, togglePicks, useView } from "../../project/view";
import { useCountFrom } from "../../ui/counting";
import { useElementSize } from "../../ui/element-size";
import { useKeys } from "../../ui/keys";
import { movedCursor } from "./cursor";

const CARD = 116; // px, with the space after it

/** The pictures of a series side by side; only those in sight are drawn and read. */
export function SeriesWall({ source }: { source: Source }) {
  const wall = useRef<HTMLDivElement>(null);
  const across = Math.max(1, Math.floor((useElementSize(wall).width - 8) / CARD));
  const picked = useView((view) => view.picked);
  const cursor = useView((view) => view.cursor);
  const rows = useVirtualizer({
    count: Math.ceil(source.frames.length / across),
    getScrollElement: () => wall.current,
    estimateSize: () => CARD + 20,
    overscan: 2,
  });
  const inSight = rows.getVirtualItems().flatMap(({ index }) => source.frames.slice(index * across, (index + 1) * across));
  // Asking for what is there already costs nothing.
  useEffect(() => loadPictures(inSight.map((frame) => frameLook(source, frame))));
  const move = (by: number) => {
    const next = movedCursor(source, cursor, by, 0);
    if (next) useView.setState({ cursor: next });
  };
  useKeys("The series", [
    { keys: "ArrowLeft", repeats: true, label: "Picture before", run: () => move(-1) },
    { keys: "ArrowRight", repeats: true, label: "Next picture", run: () => move(1) },
    { keys: "Enter x", label: "Pick the picture, or take it out", run: () => cursor && togglePick(cursor) },
    { keys: "a", label: "Pick all of the series", run: () => togglePicks(keptRefs(source)) },
    { keys: "Escape", label: "Pick nothing", run: () => useView.setState({ picked: [] }) },
  ]);
  const numbers = new Map(picked.map((ref, k) => [ref, k + 1]));
  return (
    <section
      ref={wall}
      tabIndex={0}
      aria-label={`Pictures of ${source.name}`}
      className="min-h-0 grow overflow-y-auto rounded-box border border-line"
    >
      <div className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => (
          <ul key={index} className="absolute left-1 flex" style={{ top: start }}>
            {source.frames.slice(index * across, (index + 1) * across).map((frame) => (
              <Card key={frame.key} source={source} frame={frame} number={numbers.get(frameRef(source, frame))} />
            ))}
          </ul>
        ))}
      </div>
    </section>
  );
}

function Card({ source, frame, number }: { source: Source; frame: Frame; number: number | undefined }) {
  const ref = frameRef(source, frame);
  const name = frameName(source, frame);
  const { w, h } = frame.rect;
  const countFrom = useCountFrom();
  return (
    <li style={{ width: CARD }} className="p-1.5">
      <button
        type="button"
        data-chooses
        tabIndex={-1}
        aria-pressed={number !== undefined}
        aria-label={`${name}, ${w} × ${h}${frame.dropped ? ", dropped" : ""}`}
        title={name}
        onClick={(event) => {
          if (frame.dropped) useView.setState({ cursor: ref });
          else if (event.shiftKey) pickRun(keptRefs(source), ref);
          else togglePick(ref);
        }}
        className={`check relative block overflow-hidden rounded-box border-2 ${number ? "border-now" : "border-line hover:border-lapis"} ${frame.dropped ? "opacity-40" : ""}`}
      >
        <FramePicture source={source} frame={frame} size={CARD - 16} className="block" />
        {number && <span className="number absolute top-0 right-0 bg-now px-1 text-small font-semibold text-on-now">{number}</span>}
      </button>
      <span className="number block truncate text-center text-small text-muted">{frame.name ?? frame.number + countFrom}</span>
    </li>
  );
}
