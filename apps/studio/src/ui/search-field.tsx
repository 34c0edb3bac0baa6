"use client";

import { AS_TYPED } from "./as-typed";

/** The id of an option in the list under a search field. */
export function optionId(listId: string, index: number): string {
  return `${listId}-${index}`;
}

/**
 * The field over a list of options: what is typed shortens the list, and `keys` reach its options and choose one. The focus stays in the
 * field; the option that is reached, -1 for none, is announced as if it was there.
 */
export function SearchField({
  label,
  placeholder,
  listId,
  reached,
  value,
  onChange,
  keys,
  className,
}: {
  label: string;
  placeholder: string;
  listId: string;
  reached: number;
  value: string;
  onChange: (typed: string) => void;
  keys: Readonly<Record<string, () => void>>;
  className: string;
}) {
  return (
    <input
      // biome-ignore lint/a11y/noAutofocus: it is what the person opened this for
      autoFocus
      role="combobox"
      aria-label={label}
      aria-expanded="true"
      aria-controls={listId}
      aria-activedescendant={reached < 0 ? undefined : optionId(listId, reached)}
      placeholder={placeholder}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      onKeyDown={(event) => {
        if (!Object.hasOwn(keys, event.key)) return;
        event.preventDefault();
        keys[event.key]?.();
      }}
      className={`rounded-box border border-line-strong placeholder:text-muted ${className}`}
      {...AS_TYPED}
    />
  );
}
