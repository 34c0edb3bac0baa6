"use client";

import { RadioGroup } from "radix-ui";

/** A choice of a few options, all visible. */
export function Choice<Value extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: Value;
  options: readonly (readonly [value: Value, text: string])[];
  onChange: (value: Value) => void;
}) {
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      onValueChange={(next) => onChange(next as Value)}
      orientation="horizontal"
      className="inline-flex overflow-hidden rounded-box border border-line bg-raised"
    >
      {options.map(([each, text]) => (
        <RadioGroup.Item
          key={each}
          value={each}
          // Chosen by the pointer, it gives the arrow keys back to what they moved before; by the keyboard, it keeps them.
          onClick={(event) => event.detail > 0 && event.currentTarget.blur()}
          className="min-h-7.5 px-3 pointer-coarse:min-h-10 whitespace-nowrap transition-colors not-first:border-l not-first:border-line hover:bg-lapis-soft focus-visible:-outline-offset-2 data-[state=checked]:bg-lapis data-[state=checked]:text-on-lapis"
        >
          {text}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
