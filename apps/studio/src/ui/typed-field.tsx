"use client";

import { type FocusEvent, type KeyboardEvent, useId, useLayoutEffect, useRef, useState } from "react";
import { AS_TYPED } from "./as-typed";

interface Options {
  /** Takes a finished text; an answer is what is wrong with it. */
  readonly finish: (text: string) => string | null | undefined;
  /** What Enter does with the text, beyond finishing it. */
  readonly enter?: (text: string) => string | null | undefined;
  /** Whether an invalid text stays in the field when it loses focus, with its reason, until it loses it again. */
  readonly keepsWrong: boolean;
}

/**
 * A text field: its text counts when finished with Enter, Tab or a click elsewhere, Escape restores the old value, and an invalid text is
 * reported below. Spread `input` over the input; its value is `typed`, or the stored value while nothing is being typed.
 */
export function useTypedField({ finish, enter = finish, keepsWrong }: Options) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const problemId = useId();
  /** Set while Enter or Escape leaves the field: the text has then been accepted or given up, and blur must not accept it again. */
  const isSettled = useRef(false);
  const field = useRef<HTMLInputElement>(null);
  const shown = useRef<string>(undefined);

  // A value that comes or is nudged to while the field has the focus moves the caret to its end: digits typed next would be added to it.
  useLayoutEffect(() => {
    const now = field.current;
    if (typed === null && now !== null && now === document.activeElement && now.value !== shown.current) now.select();
    shown.current = now?.value;
  });

  const reset = () => {
    setTyped(null);
    setProblem(null);
  };
  /** Handles the result of an attempt; an invalid text is kept as `wrong`, or as typed. True if it was accepted. */
  const settle = (answer: string | null | undefined, wrong?: string): boolean => {
    setProblem(answer ?? null);
    if (!answer) setTyped(null);
    else if (wrong !== undefined) setTyped(wrong);
    return !answer;
  };

  const input = {
    ref: field,
    "aria-invalid": problem !== null,
    "aria-describedby": problem ? problemId : undefined,
    ...AS_TYPED,
    onFocus: (event: FocusEvent<HTMLInputElement>) => event.target.select(),
    onChange: (event: { target: HTMLInputElement }) => {
      setTyped(event.target.value);
      setProblem(null);
    },
    onBlur: (event: FocusEvent<HTMLInputElement>) => {
      // Read from the field itself: the latest characters may not have been rendered yet.
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
