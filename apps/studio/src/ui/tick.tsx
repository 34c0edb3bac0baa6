"use client";

import { Check } from "lucide-react";
import { Checkbox } from "radix-ui";
import { useId } from "react";

/** A checkbox with its label. */
export function Tick({ label, checked, onChange }: { label: string; checked: boolean; onChange: (checked: boolean) => void }) {
  const id = useId();
  return (
    <span className="inline-flex min-h-7 items-center gap-2">
      <Checkbox.Root
        id={id}
        checked={checked}
        onCheckedChange={(next) => onChange(next === true)}
        className="inline-flex size-4.5 shrink-0 items-center justify-center rounded-sm border border-line-strong bg-raised data-[state=checked]:border-lapis data-[state=checked]:bg-lapis data-[state=checked]:text-on-lapis"
      >
        <Checkbox.Indicator>
          <Check size={14} strokeWidth={3} />
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id}>{label}</label>
    </span>
  );
}
