"use client";

import { ChevronDown, ChevronRight } from "lucide-react";
import { memo, type ReactNode, useEffect, useRef, useState } from "react";
import { useInSight } from "./in-sight";

export interface Row {
  readonly id: string;
  readonly name: string;
  readonly fact: ReactNode;
  /** Set where it stands under a heading. */
  readonly under?: Heading;
}

/** The heading under which consecutive rows are listed and folded. The same object for all of them. */
export interface Heading {
  readonly title: string;
  readonly fact: string;
  readonly folded: boolean;
  readonly onFold: (folded: boolean) => void;
}

/** The id of an element's row. */
export function rowAt(element: Element): string | undefined {
  return element.closest<HTMLElement>("[data-row]")?.dataset.row;
}

/** The list at the left: one row is chosen; click or arrow keys choose another. */
export function RowList({
  label,
  rows,
  chosen,
  together,
  onChoose,
  onChooseToo,
  onOpen,
}: {
  label: string;
  rows: readonly Row[];
  chosen: string | null;
  /** Rows selected besides the current one. */
  together?: ReadonlySet<string>;
  onChoose: (id: string) => void;
  /** Ctrl or ⌘ adds one, Shift adds all up to it. Without it, only one row can be selected. */
  onChooseToo?: (id: string, run: boolean) => void;
  /** On Enter or a double click. */
  onOpen?: (id: string) => void;
}) {
  const list = useRef<HTMLUListElement>(null);
  // The selected row is never folded away.
  const unfolded = rows.filter(({ id, under }) => !under?.folded || id === chosen || together?.has(id));
  const items = withHeadings(rows, unfolded);
  const [focused, setFocused] = useState<string | null>(null);
  const { shown, measure, bring } = useInSight({
    count: items.length,
    height: ROW,
    kept: [chosen, focused].map((id) => (id === null ? -1 : items.findIndex((item) => "id" in item && item.id === id))),
    list,
    scroller: () => list.current?.closest<HTMLElement>(".scrolls") ?? null,
  });
  const focus = (id: string): boolean => {
    const row = list.current?.querySelector<HTMLElement>(`[data-row="${CSS.escape(id)}"]`);
    row?.focus();
    return row !== null && row !== undefined;
  };
  /** A row selected while out of view gets the focus as soon as it is rendered. */
  const toFocus = useRef<string | null>(null);
  useEffect(() => {
    if (toFocus.current === chosen && chosen !== null && focus(chosen)) toFocus.current = null;
  });
  const choose = (index: number) => {
    const row = unfolded[Math.max(0, Math.min(unfolded.length - 1, index))];
    if (!row) return;
    onChoose(row.id);
    if (focus(row.id)) return;
    toFocus.current = row.id;
    bring(items.indexOf(row));
  };
  // What is chosen elsewhere, by a key or a click on something that shows it, is brought into sight where the list does not stand whole.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another choice moves the list
  useEffect(() => {
    const at = items.findIndex((item) => "id" in item && item.id === chosen);
    if (at >= 0 && measure) bring(at);
  }, [chosen]);
  const idOf = (event: { target: EventTarget }) => rowAt(event.target as Element);
  return (
    <ul
      ref={list}
      aria-label={label}
      onFocus={(event) => setFocused(idOf(event) ?? null)}
      onBlur={() => setFocused(null)}
      onClick={(event) => {
        const id = idOf(event);
        if (id === undefined) return;
        if (onChooseToo && (event.shiftKey || event.ctrlKey || event.metaKey)) onChooseToo(id, event.shiftKey);
        else onChoose(id);
      }}
      onDoubleClick={(event) => {
        const id = idOf(event);
        if (id !== undefined) onOpen?.(id);
      }}
      onKeyDown={(event) => {
        const id = idOf(event);
        const index = unfolded.findIndex((row) => row.id === id);
        if (index < 0 || id === undefined) return;
        if (event.key === "ArrowDown" || event.key === "ArrowUp") {
          event.preventDefault();
          const next = index + (event.key === "ArrowDown" ? 1 : -1);
          const row = unfolded[next];
          if (event.shiftKey && onChooseToo && row) {
            onChooseToo(row.id, true);
            focus(row.id);
          } else choose(next);
        } else if (event.key === "Enter" && (onOpen || id !== chosen)) {
          // On the row that is chosen already, Enter is left to the stop.
          event.preventDefault();
          if (onOpen) onOpen(id);
          else onChoose(id);
        }
      }}
    >
      {shown.map((each) => {
        if (!("index" in each)) return <li key={`before ${each.before}`} aria-hidden style={{ height: each.room }} />;
        const { index } = each;
        const item = items[index] as Row | Heading;
        const place = { measure, index, count: items.length };
        if (!("id" in item)) return <HeadingItem key={`over ${item.title} ${index}`} heading={item} {...place} />;
        const { id, name, fact, under } = item;
        return (
          <RowItem
            key={id}
            id={id}
            name={name}
            fact={fact}
            within={under !== undefined}
            chosen={id === chosen}
            together={together?.has(id) === true}
            reached={id === chosen || (chosen === null && id === rows[0]?.id)}
            {...place}
          />
        );
      })}
    </ul>
  );
}

/** How high a row is, in CSS pixels. */
const ROW = 28;

/** The rows that are not folded away, each heading before the first of its rows. */
function withHeadings(rows: readonly Row[], unfolded: readonly Row[]): readonly (Row | Heading)[] {
  if (!rows.some(({ under }) => under)) return unfolded;
  const there = new Set(unfolded);
  return rows.flatMap((row, index): (Row | Heading)[] => [
    ...(row.under && row.under !== rows[index - 1]?.under ? [row.under] : []),
    ...(there.has(row) ? [row] : []),
  ]);
}

/** The position of an item in a list that may be rendered in part. */
interface Place {
  readonly measure: ((element: Element | null) => void) | undefined;
  readonly index: number;
  readonly count: number;
}

/** An item's ARIA position: if only a part of the list is rendered, the total and its index. */
function placed({ measure, index, count }: Place) {
  return { ref: measure, "data-index": index, ...(measure ? { "aria-setsize": count, "aria-posinset": index + 1 } : {}) };
}

function HeadingItem({ heading: { title, fact, folded, onFold }, ...place }: { heading: Heading } & Place) {
  return (
    <li {...placed(place)}>
      <button
        type="button"
        aria-expanded={!folded}
        onClick={(event) => {
          event.stopPropagation();
          onFold(!folded);
        }}
        className="flex min-h-6.5 w-full items-center gap-0.5 pointer-coarse:min-h-10 rounded-box pr-1.5 text-left text-muted hover:bg-lapis-soft"
      >
        {folded ? <ChevronRight size={13} className="shrink-0" /> : <ChevronDown size={13} className="shrink-0" />}
        <span className="grow truncate">{title}</span>
        <span className="number shrink-0 text-small">{fact}</span>
      </button>
    </li>
  );
}

/** Renders again only when its content changes: there may be hundreds, beside something that changes at every move. */
const RowItem = memo(function RowItem({
  id,
  name,
  fact,
  within,
  chosen,
  together,
  reached,
  ...place
}: Omit<Row, "under"> &
  Place & {
    readonly within: boolean;
    readonly chosen: boolean;
    readonly together: boolean;
    readonly reached: boolean;
  }) {
  return (
    <li {...placed(place)}>
      <button
        type="button"
        data-chooses
        data-row={id}
        aria-current={chosen ? "true" : undefined}
        aria-pressed={together ? true : undefined}
        title={name.length > SHORT ? name : undefined}
        tabIndex={reached ? 0 : -1}
        className={`flex min-h-7 w-full items-center justify-between gap-2 pointer-coarse:min-h-10 rounded-box border-l-4 pr-1.5 ${within ? "pl-4" : "pl-1.5"} text-left transition-colors ${chosen ? "border-l-now bg-lapis-soft" : together ? "border-l-lapis bg-lapis-soft" : "border-l-transparent hover:bg-lapis-soft"}`}
      >
        <span className="truncate">{name}</span>
        <span className="number shrink-0 text-small text-muted">{fact}</span>
      </button>
    </li>
  );
});

/** Names longer than this may not fit; the whole of them is shown on pointing. */
const SHORT = 14;

/** The heading over a list, with how many there are. */
export function ListHeading({ title, count }: { title: string; count: number }) {
  return (
    <h2 className="flex justify-between px-1.5 pb-2 font-semibold text-muted">
      {title} <span className="number">{count}</span>
    </h2>
  );
}
