"use client";

import { type FocusEvent, type KeyboardEvent, useId, useRef, useState } from "react";

interface Options {
  /** Takes a finished text; an answer is what is wrong with it. */
  readonly finish: (text: string) => string | null | undefined;
  /** What Enter does with the text, where that is more than finishing it. */
  readonly enter?: (text: string) => string | null | undefined;
  /** Whether what does not fit stays in the field when it is left, with its reason, until it is left once more. */
  readonly keepsWrong: boolean;
}

/**
 * A field in which something is typed: what stands in it counts when it is finished with Enter, Tab or a click elsewhere, Escape leaves it as it was,
 * and what does not fit is told under it. Spread `input` over the input; its value is `typed`, or what it shows while nothing is being typed.
 */
export function useTypedField({ finish, enter = finish, keepsWrong }: Options) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const problemId = useId();
  /** Set while Enter or Escape leaves the field: what was typed has been taken or given up then, and leaving must not take it. */
  const isSettled = useRef(false);

  const reset = () => {
    setTyped(null);
    setProblem(null);
  };
  /** What came of an attempt; what does not fit stands there as `wrong`, or as it was typed. True if it was taken. */
  const settle = (answer: string | null | undefined, wrong?: string): boolean => {
    setProblem(answer ?? null);
    if (!answer) setTyped(null);
    else if (wrong !== undefined) setTyped(wrong);
    return !answer;
  };

  const input = {
    "aria-invalid": problem !== null,
    "aria-describedby": problem ? problemId : undefined,
    autoComplete: "off",
    onFocus: (event: FocusEvent<HTMLInputElement>) => event.target.select(),
    onChange: (event: { target: HTMLInputElement }) => {
      setTyped(event.target.value);
      setProblem(null);
    },
    onBlur: (event: FocusEvent<HTMLInputElement>) => {
      // Taken from the field itself: what was typed this very moment may not have been drawn yet.
      if (isSettled.current) isSettled.current = false;
      else if (problem !== null || (!settle(finish(event.currentTarget.value)) && !keepsWrong)) reset();
    },
    onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => {
      if (event.key === "Enter" && settle(enter(event.currentTarget.value))) {
        isSettled.current = true;
        event.currentTarget.blur();
      } else if (event.key === "Escape") {
        reset();
        event.stopPropagation();
        isSettled.current = true;
        event.currentTarget.blur();
      }
    },
  };
  const note = problem && (
    <span
      id={problemId}
      role="alert"
      className="absolute top-full left-0 z-20 mt-1.5 w-64 rounded-box border border-brick bg-brick-soft px-2 py-1 text-small font-normal whitespace-normal text-ink"
    >
      {problem}
    </span>
  );
  return { typed, problem, settle, input, note };
}
