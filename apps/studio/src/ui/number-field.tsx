"use client";

import { type ReactNode, useId, useRef, useState } from "react";

/** A small box with a word and numbers in it, as `cell 40 × 48`. */
export function FieldBox({ label, children, trouble }: { label: string; children: ReactNode; trouble?: boolean }) {
  return (
    <div
      className={`inline-flex min-h-8 items-center gap-1.5 rounded-box border bg-raised px-2 focus-within:border-lapis ${trouble ? "border-brick" : "border-line"}`}
    >
      <span className="text-small text-muted">{label}</span>
      {children}
    </div>
  );
}

interface Props {
  /** For screen readers, and for tests: what the number is. */
  readonly label: string;
  readonly value: number;
  /** Takes a typed or nudged number; an answer is what is wrong with it, and the field keeps what was typed. */
  readonly onChange: (value: number) => string | null | undefined;
  readonly least?: number;
  readonly most?: number;
  /** By how much arrow keys change it; with Shift ten times as much. */
  readonly step?: number;
  /** Decimals shown and taken; 0 for whole numbers. */
  readonly decimals?: number;
  readonly unit?: string;
  readonly disabled?: boolean;
  /** Width in characters. */
  readonly width?: number;
}

/**
 * A number to type or to nudge with the arrow keys. Typing counts when it is finished with Enter, Tab or a click elsewhere;
 * Escape takes it back. What does not fit stays in the field, with the reason under it.
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
  width,
}: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const problemId = useId();
  /** Set while Enter leaves the field: what was typed has been taken then, and leaving must not take it once more. */
  const takenByEnter = useRef(false);
  const shown = typed ?? written(value, decimals);

  const take = (number: number): boolean => {
    const answer = onChange(number) ?? null;
    setProblem(answer);
    setTyped(answer === null ? null : written(number, decimals));
    return answer === null;
  };

  const refuse = (reason: string): false => {
    setProblem(reason);
    return false;
  };

  /** Takes what stands in the field itself, a digit typed this very moment too; false if it does not fit. */
  const finish = (text: string): boolean => {
    // Typing what stands there changes nothing, though more decimals may lie behind what is shown.
    if (text.trim() !== "" && Number(text.trim().replace(",", ".")) === Number(written(value, decimals))) {
      setTyped(null);
      setProblem(null);
      return true;
    }
    const number = Number(text.trim().replace(",", "."));
    if (text.trim() === "" || !Number.isFinite(number)) return refuse("Type a number.");
    if (decimals === 0 && !Number.isInteger(number)) return refuse("Type a whole number.");
    if (number < least || number > most) return refuse(`Type a number from ${least} to ${most}.`);
    return take(number);
  };

  return (
    <span className="relative inline-flex items-baseline gap-1">
      <input
        className={`number min-h-6 rounded-sm bg-transparent text-center text-strong font-semibold disabled:opacity-50 ${problem ? "text-brick" : ""}`}
        style={{ width: `${width ?? Math.max(2, shown.length) + 0.6}ch` }}
        inputMode={decimals > 0 ? "decimal" : "numeric"}
        autoComplete="off"
        aria-label={label}
        aria-invalid={problem !== null}
        aria-describedby={problem ? problemId : undefined}
        disabled={disabled}
        value={shown}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setTyped(event.target.value);
          setProblem(null);
        }}
        onBlur={(event) => {
          if (takenByEnter.current) takenByEnter.current = false;
          else if (problem === null) {
            finish(event.currentTarget.value);
          } else {
            setTyped(null);
            setProblem(null);
          }
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter") {
            // Enter takes the number as it stands too: it may be what someone wants.
            const { value: text } = event.currentTarget;
            const fits = text === written(value, decimals) ? take(value) : finish(text);
            if (!fits) return;
            takenByEnter.current = true;
            event.currentTarget.blur();
          } else if (event.key === "Escape") {
            setTyped(null);
            setProblem(null);
            event.stopPropagation();
          } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
            event.preventDefault();
            const by = (event.key === "ArrowUp" ? step : -step) * (event.shiftKey ? 10 : 1);
            const from = typed === null || problem ? value : Number(typed.replace(",", ".")) || value;
            const next = Math.max(least, Math.min(most, Number((from + by).toFixed(decimals))));
            if (next !== value || typed !== null) take(next);
          }
        }}
      />
      {unit && <span className="text-small text-muted">{unit}</span>}
      {problem && (
        <span
          id={problemId}
          role="alert"
          className="absolute top-full left-0 z-20 mt-2 w-64 rounded-box border border-brick bg-brick-soft px-2 py-1 text-small whitespace-normal text-ink"
        >
          {problem}
        </span>
      )}
    </span>
  );
}

/** Without trailing zeros: 100, 37.5, 0.833. */
export function written(value: number, decimals: number): string {
  return String(Number(value.toFixed(decimals)));
}
