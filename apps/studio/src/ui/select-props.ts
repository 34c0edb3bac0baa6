/** What a choice of many is made of. */
export interface SelectProps<Value extends string | number> {
  /** Its name for screen readers, even if a label is beside it. */
  readonly label: string;
  readonly value: Value | null;
  readonly options: readonly (readonly [value: Value, text: string])[];
  readonly onChange: (value: Value) => void;
  readonly placeholder?: string;
  readonly disabled?: boolean;
  readonly className?: string;
}

/** How the button of a choice looks. */
export const SELECT_BUTTON =
  "inline-flex min-h-7 min-w-0 pointer-coarse:min-h-10 items-center justify-between gap-1 rounded-box border border-line bg-raised px-1.5 text-left text-ink hover:border-line-strong disabled:opacity-50";
