"use client";

import { clipsOfRows, type NamedRow } from "@caravan/core/edit";
import { matchFacings } from "@caravan/core/facing";
import type { ClipName } from "@caravan/core/model";
import { type ClipboardEvent, useEffect, useId, useState } from "react";
import { useFacingOrder } from "../project/facing-order";
import { apply } from "../project/open-project";
import { chooseClip } from "../project/view";
import { AS_TYPED } from "../ui/as-typed";
import { Button } from "../ui/button";
import { useCountFrom } from "../ui/counting";
import { say } from "../ui/notices";
import { Tick } from "../ui/tick";
import { t } from "../ui/words";
import { RowMoving } from "./row-moving";
import type { RowsOf } from "./rows-of";

/** Lists the rows, each playing beside its name. Optionally makes actions, if the names contain facings. */
export function RowsAsClips({ parted: { source, rows, cut }, onMade }: { parted: RowsOf; onMade: () => void }) {
  const countFrom = useCountFrom();
  const order = useFacingOrder();
  const list = useId();
  const [names, setNames] = useState<Readonly<Record<number, string>>>(() =>
    Object.fromEntries(rows.map((row) => [row, rows.length === 1 ? source.name : `${source.name}-${row + countFrom}`])),
  );
  const [problem, setProblem] = useState<string | null>(null);
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  // Rows of an uncut sheet appear a moment after the dialog: then the first name gets the focus.
  useEffect(() => document.getElementById(`${list} 0`)?.focus(), [list]);
  const chosen = rows.flatMap((row): NamedRow[] => {
    const name = (names[row] ?? "").trim();
    return name === "" ? [] : [{ row, name }];
  });
  const named = chosen.map(({ name }) => name as ClipName);
  const matched = matchFacings(named, order).filter(({ byNumber }) => !byNumber);
  const actions = matched.filter(({ stem }) => !without.has(stem));
  const write = (change: Readonly<Record<number, string>>) => {
    setNames({ ...names, ...change });
    setProblem(null);
  };
  // A pasted list continues down the rows.
  const paste = (event: ClipboardEvent, from: number) => {
    const lines = event.clipboardData
      .getData("text")
      .split(/\r?\n|\t/)
      .filter((line) => line.trim() !== "");
    if (lines.length < 2) return;
    event.preventDefault();
    write(Object.fromEntries(lines.flatMap((line, k) => (rows[from + k] === undefined ? [] : [[rows[from + k] as number, line.trim()]]))));
  };
  const make = () => {
    const error = apply(
      (project) => clipsOfRows(cut(project), source.id, chosen, actions),
      (project) => clipsOfRows.label(project, source.id, chosen, actions),
    );
    if (error) return setProblem(error.message);
    say({
      tone: "good",
      text:
        chosen.length === 1
          ? t("Made a clip of a row of {name}.", { name: source.name })
          : t("Made {count} clips of the rows of {name}.", { name: source.name, count: chosen.length }),
    });
    chooseClip(named[0] as ClipName);
    onMade();
  };
  const move = (event: React.KeyboardEvent<HTMLElement>, k: number) => {
    const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    document.getElementById(`${list} ${k + by}`)?.focus();
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (chosen.length > 0) make();
      }}
    >
      <ul aria-label={t("Rows")} className="flex flex-col gap-1.5">
        {rows.map((row, k) => (
          <li key={row} className="flex items-center gap-3 rounded-box border border-line bg-raised px-2 py-1">
            <span className="number w-14 shrink-0 text-muted">{t("row {row}", { row: row + countFrom })}</span>
            <RowMoving source={source} row={row} />
            <input
              id={`${list} ${k}`}
              aria-label={t("Name of the clip of row {row}", { row: row + countFrom })}
              className="min-h-8 w-48 rounded-sm border border-line-strong bg-surface px-2 font-semibold"
              value={names[row] ?? ""}
              {...AS_TYPED}
              onFocus={(event) => event.target.select()}
              onChange={(event) => write({ [row]: event.target.value })}
              onPaste={(event) => paste(event, k)}
              onKeyDown={(event) => move(event, k)}
            />
            <span className="truncate text-small text-muted">
              {(names[row] ?? "").trim() === "" ? t("left out") : framesInWords(source, row)}
            </span>
          </li>
        ))}
      </ul>
      {matched.map(({ stem, ways }) => (
        <div key={stem} className="mt-2">
          <Tick
            label={t("Also make the action {stem}, {ways} facings", { stem, ways })}
            checked={!without.has(stem)}
            onChange={(wanted) => setWithout(toggled(without, stem, !wanted))}
          />
        </div>
      ))}
      {problem && (
        <p role="alert" className="mt-2 font-semibold text-brick">
          {problem}
        </p>
      )}
      <div className="sticky -bottom-4 mt-3 -mb-4 flex justify-end bg-paper pt-2 pb-4">
        <Button look="now" type="submit" disabled={chosen.length === 0} hint="Enter">
          {chosen.length === 1 ? t("Make the clip") : t("Make {count} clips", { count: chosen.length })}
        </Button>
      </div>
    </form>
  );
}

function toggled(set: ReadonlySet<string>, each: string, on: boolean): Set<string> {
  const next = new Set(set);
  if (on) next.add(each);
  else next.delete(each);
  return next;
}

function framesInWords(source: RowsOf["source"], row: number): string {
  const count = source.frames.filter((frame) => frame.row === row && !frame.dropped).length;
  return count === 1 ? t("1 frame") : t("{count} frames", { count });
}
