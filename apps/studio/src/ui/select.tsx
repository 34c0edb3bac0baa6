"use client";

import { Check, ChevronDown } from "lucide-react";
import { Select as Radix } from "radix-ui";
import { LongSelect } from "./long-select";
import { SELECT_BUTTON, type SelectProps } from "./select-props";

/** More options than this are a list to search in. */
const MOST_AT_ONCE = 40;

/** A choice of many, showing the selected one. `value` may be none of them: then `placeholder` is shown. */
export function Select<Value extends string | number>(props: SelectProps<Value>) {
  return props.options.length > MOST_AT_ONCE ? <LongSelect {...props} /> : <ShortSelect {...props} />;
}

function ShortSelect<Value extends string | number>({
  label,
  value,
  options,
  onChange,
  placeholder,
  disabled = false,
  className = "",
}: SelectProps<Value>) {
  // Options are identified by position: Radix accepts no empty text as a value, and here it is one.
  const at = options.findIndex(([each]) => each === value);
  return (
    <Radix.Root
      value={at < 0 ? "" : String(at)}
      onValueChange={(next) => next !== "" && onChange((options[Number(next)] as (typeof options)[number])[0])}
      disabled={disabled}
    >
      <Radix.Trigger aria-label={label} className={`${SELECT_BUTTON} ${className}`}>
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
            {options.map(([each, text], k) => (
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
