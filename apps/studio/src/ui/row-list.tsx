"use client";

import { ChevronDown, ChevronRight } from "lucide-react";
import { Fragment, memo, type ReactNode } from "react";

export interface Row {
  readonly id: string;
  readonly name: string;
  readonly fact: ReactNode;
  /** Set where it stands under a heading. */
  readonly under?: Heading;
}

/** What several rows that follow one another stand under, and fold away under. The same object for all of them. */
export interface Heading {
  readonly title: string;
  readonly fact: string;
  readonly folded: boolean;
  readonly onFold: (folded: boolean) => void;
}

/** The id of the row that an element lies in. */
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
  /** Rows that are selected beside the chosen one. */
  together?: ReadonlySet<string>;
  onChoose: (id: string) => void;
  /** With Ctrl or ⌘ one more, with Shift all up to it. Without it, one row is all that can be chosen. */
  onChooseToo?: (id: string, run: boolean) => void;
  /** On Enter or a double click. */
  onOpen?: (id: string) => void;
}) {
  // What is chosen is never folded away.
  const inSight = rows.filter(({ id, under }) => !under?.folded || id === chosen || together?.has(id));
  const choose = (index: number, list: Element | null) => {
    const row = inSight[Math.max(0, Math.min(inSight.length - 1, index))];
    if (!row) return;
    onChoose(row.id);
    list?.querySelector<HTMLElement>(`[data-row="${CSS.escape(row.id)}"]`)?.focus();
  };
  const idOf = (event: { target: EventTarget }) => rowAt(event.target as Element);
  return (
    <ul
      aria-label={label}
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
        const index = inSight.findIndex((row) => row.id === id);
        if (index < 0 || id === undefined) return;
        if (event.key === "ArrowDown" || event.key === "ArrowUp") {
          event.preventDefault();
          const next = index + (event.key === "ArrowDown" ? 1 : -1);
          const row = inSight[next];
          if (event.shiftKey && onChooseToo && row) {
            onChooseToo(row.id, true);
            event.currentTarget.querySelector<HTMLElement>(`[data-row="${CSS.escape(row.id)}"]`)?.focus();
          } else choose(next, event.currentTarget);
        } else if (event.key === "Enter" && (onOpen || id !== chosen)) {
          // On the row that is chosen already, Enter is left to the stop.
          event.preventDefault();
          if (onOpen) onOpen(id);
          else onChoose(id);
        }
      }}
    >
      {rows.map(({ id, name, fact, under }, index) => (
        <Fragment key={id}>
          {under && under !== rows[index - 1]?.under && <HeadingItem heading={under} />}
          {(!under?.folded || id === chosen || together?.has(id)) && (
            <RowItem
              id={id}
              name={name}
              fact={fact}
              within={under !== undefined}
              chosen={id === chosen}
              together={together?.has(id) === true}
              reached={id === chosen || (chosen === null && index === 0)}
            />
          )}
        </Fragment>
      ))}
    </ul>
  );
}

function HeadingItem({ heading: { title, fact, folded, onFold } }: { heading: Heading }) {
  return (
    <li>
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

/** Drawn again only when it says something else: there may be hundreds, beside something that changes at every move. */
const RowItem = memo(function RowItem({
  id,
  name,
  fact,
  within,
  chosen,
  together,
  reached,
}: Omit<Row, "under"> & {
  readonly within: boolean;
  readonly chosen: boolean;
  readonly together: boolean;
  readonly reached: boolean;
}) {
  return (
    <li>
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
