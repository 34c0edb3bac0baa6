"use client";

import { Check, ChevronDown } from "lucide-react";
import { Select as Radix } from "radix-ui";
import { useState } from "react";

/**
 * The number of options kept ready while the list is closed, so that typing a letter selects one; more would be rendered again at every
 * selected step.
 */
const MOST_KEPT = 40;

/** A choice of many, showing the selected one. `value` may be none of them: then `placeholder` is shown. */
export function Select<Value extends string | number>({
  label,
  value,
  options,
  onChange,
  placeholder,
  disabled = false,
  className = "",
}: {
  /** Its name for screen readers, even if a label is beside it. */
  label: string;
  value: Value | null;
  options: readonly (readonly [value: Value, text: string])[];
  onChange: (value: Value) => void;
  placeholder?: string;
  disabled?: boolean;
  className?: string;
}) {
  // Options are identified by position: Radix accepts no empty text as a value, and here it is one.
  const at = options.findIndex(([each]) => each === value);
  const [open, setOpen] = useState(false);
  const isListed = open || options.length <= MOST_KEPT;
  return (
    <Radix.Root
      open={open}
      onOpenChange={setOpen}
      value={at < 0 ? "" : String(at)}
      onValueChange={(next) => next !== "" && onChange((options[Number(next)] as (typeof options)[number])[0])}
      disabled={disabled}
    >
      <Radix.Trigger
        aria-label={label}
        className={`inline-flex min-h-7 min-w-0 pointer-coarse:min-h-10 items-center justify-between gap-1 rounded-box border border-line bg-raised px-1.5 text-left text-ink hover:border-line-strong disabled:opacity-50 ${className}`}
      >
        <span className="truncate">
          <Radix.Value placeholder={placeholder}>{at < 0 ? undefined : options[at]?.[1]}</Radix.Value>
        </span>
        <Radix.Icon className="shrink-0 text-muted">
          <ChevronDown size={13} />
        </Radix.Icon>
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          data-overlay
          position="popper"
          sideOffset={3}
          collisionPadding={8}
          className="z-50 max-h-(--radix-select-content-available-height) min-w-(--radix-select-trigger-width) overflow-hidden rounded-box border border-line-strong bg-raised text-ink"
        >
          <Radix.Viewport className="p-1">
            {(isListed ? options : []).map(([each, text], k) => (
              <Radix.Item
                key={k}
                value={String(k)}
                className="flex min-h-7 cursor-default pointer-coarse:min-h-10 items-center justify-between gap-3 rounded-sm px-2 outline-none data-[highlighted]:bg-lapis data-[highlighted]:text-on-lapis"
              >
                <Radix.ItemText>{text}</Radix.ItemText>
                <Radix.ItemIndicator>
                  <Check size={13} />
                </Radix.ItemIndicator>
                {each === value ? null : <span className="w-3.5" />}
              </Radix.Item>
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
