"use client";

import type { ReactNode } from "react";

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
  onChoose,
  onOpen,
}: {
  label: string;
  rows: readonly Row[];
  chosen: string | null;
  onChoose: (id: string) => void;
  /** On Enter or a double click. */
  onOpen?: (id: string) => void;
}) {
  const choose = (index: number, list: Element | null) => {
    const row = rows[Math.max(0, Math.min(rows.length - 1, index))];
    if (!row) return;
    onChoose(row.id);
    list?.querySelector<HTMLElement>(`[data-row="${CSS.escape(row.id)}"]`)?.focus();
  };
  return (
    <ul aria-label={label}>
      {rows.map((row, index) => (
        <li key={row.id}>
          <button
            type="button"
            data-chooses
            data-row={row.id}
            aria-current={row.id === chosen ? "true" : undefined}
            tabIndex={row.id === chosen || (chosen === null && index === 0) ? 0 : -1}
            onClick={() => onChoose(row.id)}
            onDoubleClick={() => onOpen?.(row.id)}
            onKeyDown={(event) => {
              const list = event.currentTarget.closest("ul");
              if (event.key === "ArrowDown" || event.key === "ArrowUp") {
                event.preventDefault();
                choose(index + (event.key === "ArrowDown" ? 1 : -1), list);
              } else if (event.key === "Enter" && onOpen) {
                event.preventDefault();
                onOpen(row.id);
              }
            }}
            className={`flex min-h-7 w-full items-center justify-between gap-2 rounded-box border-l-4 px-1.5 text-left transition-colors ${row.id === chosen ? "border-l-now bg-lapis-soft" : "border-l-transparent hover:bg-lapis-soft"}`}
          >
            <span className="truncate">{row.name}</span>
            <span className="number shrink-0 text-small text-muted">{row.fact}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** The heading over a list, with how many there are. */
export function ListHeading({ title, count }: { title: string; count: number }) {
  return (
    <h2 className="flex justify-between px-1.5 pb-2 font-semibold text-muted">
      {title} <span className="number">{count}</span>
    </h2>
  );
}
