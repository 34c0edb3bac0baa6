"use client";

import { memo, type ReactNode } from "react";

export interface Row {
  readonly id: string;
  readonly name: string;
  readonly fact: ReactNode;
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
  const choose = (index: number, list: Element | null) => {
    const row = rows[Math.max(0, Math.min(rows.length - 1, index))];
    if (!row) return;
    onChoose(row.id);
    list?.querySelector<HTMLElement>(`[data-row="${CSS.escape(row.id)}"]`)?.focus();
  };
  const idOf = (event: { target: EventTarget }) => (event.target as Element).closest<HTMLElement>("[data-row]")?.dataset.row;
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
        const index = rows.findIndex((row) => row.id === id);
        if (index < 0 || id === undefined) return;
        if (event.key === "ArrowDown" || event.key === "ArrowUp") {
          event.preventDefault();
          const next = index + (event.key === "ArrowDown" ? 1 : -1);
          const row = rows[next];
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
      {rows.map(({ id, name, fact }, index) => (
        <RowItem
          key={id}
          id={id}
          name={name}
          fact={fact}
          chosen={id === chosen}
          together={together?.has(id) === true}
          reached={id === chosen || (chosen === null && index === 0)}
        />
      ))}
    </ul>
  );
}

/** Drawn again only when it says something else: there may be hundreds, beside something that changes at every move. */
const RowItem = memo(function RowItem({
  id,
  name,
  fact,
  chosen,
  together,
  reached,
}: Row & { readonly chosen: boolean; readonly together: boolean; readonly reached: boolean }) {
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
        className={`flex min-h-7 w-full items-center justify-between gap-2 rounded-box border-l-4 px-1.5 text-left transition-colors ${chosen ? "border-l-now bg-lapis-soft" : together ? "border-l-lapis bg-lapis-soft" : "border-l-transparent hover:bg-lapis-soft"}`}
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
