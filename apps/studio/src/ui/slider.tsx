"use client";

import { Slider as Radix } from "radix-ui";

/** A number set by sliding; arrow keys move it by one. */
export function Slider({
  label,
  value,
  least,
  most,
  onChange,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
}) {
  return (
    <Radix.Root
      value={[Math.min(most, Math.max(least, value))]}
      min={least}
      max={most}
      step={1}
      onValueChange={([next]) => next !== undefined && onChange(next)}
      className="relative flex h-7 w-32 touch-none items-center select-none"
    >
      <Radix.Track className="relative h-1 grow rounded-full bg-line-strong">
        <Radix.Range className="absolute h-full rounded-full bg-lapis" />
      </Radix.Track>
      <Radix.Thumb aria-label={label} className="block size-4.5 rounded-sm border-2 border-lapis bg-raised" />
    </Radix.Root>
  );
}
