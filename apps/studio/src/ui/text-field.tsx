"use client";

import { useTypedField } from "./typed-field";

interface Props {
  readonly label: string;
  readonly value: string;
  /** Takes a finished text; an answer is what is wrong with it. */
  readonly onChange: (value: string) => string | null | undefined;
  readonly className?: string;
  readonly id?: string;
  readonly placeholder?: string;
}

/** An editable name. Enter or leaving accepts it, Escape restores the old one. */
export function TextField({ label, value, onChange, className = "", id, placeholder }: Props) {
  const finish = (text: string) => (text === value ? null : onChange(text));
  const { typed, input, note } = useTypedField({ finish, keepsWrong: false });
  return (
    <span className="relative inline-flex min-w-0">
      <input
        {...input}
        id={id}
        className={`min-h-7 min-w-0 rounded-sm border border-transparent bg-transparent px-1 hover:border-line focus:border-lapis focus:bg-raised ${className}`}
        size={Math.max(6, columnsOf((typed ?? value) || (placeholder ?? "")) + 1)}
        aria-label={label}
        placeholder={placeholder}
        value={typed ?? value}
      />
      {note}
    </span>
  );
}

/** As an input's size counts: letters of Latin, Greek and Cyrillic are about as wide as its unit, those of scripts after them up to twice. */
function columnsOf(text: string): number {
  return [...text].reduce((sum, letter) => sum + ((letter.codePointAt(0) as number) < FIRST_WIDE ? 1 : 2), 0);
}

/** Where Hebrew begins. */
const FIRST_WIDE = 0x590;
