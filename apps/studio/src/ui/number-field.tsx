"use client";

import type { ReactNode } from "react";
import { useTypedField } from "./typed-field";
import { twoMeanings, typedNumber } from "./typed-number";
import { inLanguage, t } from "./words";

/** A small box with a label and numbers in it, such as `cell 40 × 48`. */
export function FieldBox({ label, children, trouble }: { label: string; children: ReactNode; trouble?: boolean }) {
  return (
    <div
      className={`inline-flex min-h-8 items-center gap-1.5 rounded-box border bg-raised px-2 focus-within:border-lapis ${trouble ? "border-brick" : "border-line"}`}
    >
      <span className="text-small whitespace-nowrap text-muted">{label}</span>
      {children}
    </div>
  );
}

interface Props {
  /** For screen readers, and for tests: what the number is. */
  readonly label: string;
  readonly value: number;
  /** Receives a typed or nudged number; returns an error message, and then the field keeps the text. */
  readonly onChange: (value: number) => string | null | undefined;
  readonly least?: number;
  readonly most?: number;
  /** The step of the arrow keys; ten times as much with Shift. */
  readonly step?: number;
  /** Decimals shown and accepted; 0 for whole numbers. */
  readonly decimals?: number;
  readonly unit?: string;
  readonly disabled?: boolean;
  readonly id?: string;
  /** Width in characters. */
  readonly width?: number;
}

/**
 * A number to type or to nudge with the arrow keys. Typing counts when finished with Enter, Tab or a click elsewhere; Escape restores the
 * old value. An invalid text stays in the field, with the reason below.
 */
export function NumberField({
  label,
  value,
  onChange,
  least = 0,
  most = 1_000_000,
  step = 1,
  decimals = 0,
  unit,
  disabled = false,
  id,
  width,
}: Props) {
  const finish = (text: string): string | null | undefined => {
    const unsure = twoMeanings(text);
    if (unsure) return t("It may be {small} or {large}: type it without the comma.", { small: unsure.small, large: unsure.large });
    const number = typedNumber(text);
    // Typing the displayed value changes nothing, even if more decimals are hidden.
    if (number === Number(written(value, decimals))) return null;
    if (!Number.isFinite(number)) return t("Type a number.");
    if (decimals === 0 && !Number.isInteger(number)) return t("Type a whole number.");
    return number < least || number > most ? t("Type a number from {least} to {most}.", { least, most }) : onChange(number);
  };
  // Enter also accepts the unchanged number: it may be what the user wants.
  const enter = (text: string) => (text === written(value, decimals) ? onChange(value) : finish(text));
  const { typed, problem, settle, input, note } = useTypedField({ finish, enter, keepsWrong: true });
  const shown = typed ?? written(value, decimals);
  const nudge = (direction: 1 | -1, far: boolean) => {
    const from = typed === null || problem ? value : typedNumber(typed) || value;
    const next = Math.max(least, Math.min(most, Number((from + direction * step * (far ? 10 : 1)).toFixed(decimals))));
    if (next !== value || typed !== null) settle(onChange(next), written(next, decimals));
  };
  return (
    <span className="relative inline-flex items-baseline gap-1">
      <input
        {...input}
        id={id}
        className={`number min-h-6 rounded-sm bg-transparent text-center text-strong font-semibold disabled:opacity-50 ${problem ? "text-brick" : ""}`}
        style={{ width: `${width ?? Math.max(2, shown.length) + 0.6}ch` }}
        inputMode={decimals > 0 ? "decimal" : "numeric"}
        aria-label={label}
        disabled={disabled}
        value={shown}
        onKeyDown={(event) => {
          if (event.key === "ArrowUp" || event.key === "ArrowDown") {
            event.preventDefault();
            nudge(event.key === "ArrowUp" ? 1 : -1, event.shiftKey);
          } else input.onKeyDown(event);
        }}
      />
      {unit && <span className="text-small text-muted">{inLanguage(unit)}</span>}
      {note}
    </span>
  );
}

/** Without trailing zeros: 100, 37.5, 0.833. */
export function written(value: number, decimals: number): string {
  return String(Number(value.toFixed(decimals)));
}
