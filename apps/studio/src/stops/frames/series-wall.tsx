"use client";

import { sheetLook } from "@caravan/core/art";
import { type Frame, frameName, frameRef, isNumberedByFiles, keptRefs, type Source } from "@caravan/core/model";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef } from "react";
import { useFrameNumber } from "../../preview/frame-number";
import { FramePicture } from "../../preview/frame-picture";
import { loadPictures } from "../../project/pictures";
import { pickRun, togglePick, togglePicks, useView } from "../../project/view";
import { useElementSize } from "../../ui/element-size";
import { useKeys } from "../../ui/keys";
import { nameAnd, t } from "../../ui/words";
import { movedCursor } from "./cursor";

const CARD = 116; // px, with the space after it

/** The pictures of a series side by side; only those in sight are drawn and read. */
export function SeriesWall({ source }: { source: Source }) {
  const wall = useRef<HTMLDivElement>(null);
  const across = Math.max(1, Math.floor((useElementSize(wall).width - 8) / CARD));
  const picked = useView((view) => view.picked);
  const cursor = useView((view) => view.cursor);
  const cards = useMemo(() => cardsOf(source), [source]);
  const rows = useVirtualizer({
    count: Math.ceil(cards.length / across),
    getScrollElement: () => wall.current,
    estimateSize: () => CARD + 20,
    overscan: 2,
  });
  const inSight = rows
    .getVirtualItems()
    .flatMap(({ index }) => cards.slice(index * across, (index + 1) * across))
    .flatMap((card) => ("missing" in card ? [] : [card]));
  // Requesting what is already there costs nothing.
  useEffect(() => loadPictures(inSight.map((frame) => sheetLook(source, frame.picture))));
  const move = (by: number) => {
    const next = movedCursor(source, cursor, by, 0);
    if (next) useView.setState({ cursor: next });
  };
  useKeys(t("The series"), [
    { keys: "ArrowLeft", repeats: true, label: t("Previous picture"), run: () => move(-1) },
    { keys: "ArrowRight", repeats: true, label: t("Next picture"), run: () => move(1) },
    { keys: "Enter x", label: t("Pick or unpick the picture"), run: () => cursor && togglePick(cursor) },
    { keys: "a", label: t("Pick all of the series"), run: () => togglePicks(keptRefs(source)) },
    { keys: "Escape", label: t("Unpick all"), run: () => useView.setState({ picked: [] }) },
  ]);
  const numbers = new Map(picked.map((ref, k) => [ref, k + 1]));
  return (
    <section
      ref={wall}
      tabIndex={0}
      aria-label={t("Pictures of {name}", { name: source.name })}
      className="min-h-0 grow overflow-y-auto rounded-box border border-line"
    >
      <div className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => (
          <ul key={index} className="absolute left-1 flex" style={{ top: start }}>
            {cards
              .slice(index * across, (index + 1) * across)
              .map((card) =>
                "missing" in card ? (
                  <Gap key={`missing ${card.missing}`} numbers={card.missing} />
                ) : (
                  <Card key={card.key} source={source} frame={card} number={numbers.get(frameRef(source, card))} />
                ),
              )}
          </ul>
        ))}
      </div>
    </section>
  );
}

/** A run of numbers between two stills for which there was no file. */
interface Missing {
  readonly missing: string;
}

/** The frames in order, with a card for each gap in the numbers of their files, as long as these go up. */
function cardsOf(source: Source): (Frame | Missing)[] {
  const { frames } = source;
  if (!isNumberedByFiles(source) || frames.some((frame, k) => k > 0 && frame.number <= (frames[k - 1] as Frame).number)) return [...frames];
  return frames.flatMap((frame, k) => {
    const [first, last] = [(frames[k - 1]?.number ?? frame.number - 1) + 1, frame.number - 1];
    return first > last ? [frame] : [{ missing: first === last ? `${first}` : t("{first} to {last}", { first, last }) }, frame];
  });
}

function Gap({ numbers }: { numbers: string }) {
  return (
    <li style={{ width: CARD }} className="p-1.5">
      <span
        className="flex items-center justify-center rounded-box border-2 border-dashed border-line-strong px-1 text-center text-small text-muted"
        style={{ width: CARD - 12, height: CARD - 12 }}
      >
        {t("{numbers} missing", { numbers })}
      </span>
    </li>
  );
}

function Card({ source, frame, number }: { source: Source; frame: Frame; number: number | undefined }) {
  const ref = frameRef(source, frame);
  const name = frameName(source, frame);
  const { w, h } = frame.rect;
  const numberOf = useFrameNumber(source);
  return (
    <li style={{ width: CARD }} className="p-1.5">
      <button
        type="button"
        data-chooses
        tabIndex={-1}
        aria-pressed={number !== undefined}
        aria-label={nameAnd(name, `${w} × ${h}`, frame.dropped && t("dropped"))}
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
      <span className="number block truncate text-center text-small text-muted">{frame.name ?? numberOf(frame)}</span>
    </li>
  );
}
