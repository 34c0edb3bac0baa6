"use client";

import { RadioGroup } from "radix-ui";

/** A choice of a few options, all visible: side by side, or one below the other where they are sentences. */
export function Choice<Value extends string>({
  label,
  value,
  options,
  stacked = false,
  onChange,
}: {
  label: string;
  value: Value;
  options: readonly (readonly [value: Value, text: string])[];
  stacked?: boolean;
  onChange: (value: Value) => void;
}) {
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      onValueChange={(next) => onChange(next as Value)}
      orientation={stacked ? "vertical" : "horizontal"}
      className={`inline-flex max-w-full overflow-hidden rounded-box border border-line bg-raised ${stacked ? "flex-col" : "max-[39.9375em]:flex-wrap"}`}
    >
      {options.map(([each, text]) => (
        <RadioGroup.Item
          key={each}
          value={each}
          // Chosen by the pointer, it gives the arrow keys back to what they moved before; by the keyboard, it keeps them.
          onClick={(event) => event.detail > 0 && event.currentTarget.blur()}
          className={`min-h-7.5 px-3 pointer-coarse:min-h-10 transition-colors not-first:border-line hover:bg-lapis-soft focus-visible:-outline-offset-2 data-[state=checked]:bg-lapis data-[state=checked]:text-on-lapis ${stacked ? "py-1 text-left not-first:border-t" : "whitespace-nowrap not-first:border-l"}`}
        >
          {text}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
