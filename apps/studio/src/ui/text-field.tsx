"use client";

import { useId, useRef, useState } from "react";

interface Props {
  readonly label: string;
  readonly value: string;
  /** Takes a finished text; an answer is what is wrong with it. */
  readonly onChange: (value: string) => string | null | undefined;
  readonly className?: string;
  readonly id?: string;
  readonly placeholder?: string;
}

/** A name to type over. Enter or leaving takes it, Escape gives the old one back. */
export function TextField({ label, value, onChange, className = "", id, placeholder }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const problemId = useId();
  /** Set while Enter leaves the field: what was typed has been taken then, and leaving must not take it once more. */
  const takenByEnter = useRef(false);
  /** Takes what stands in the field itself: a letter typed this very moment may not have been drawn yet. */
  const finish = (text: string): boolean => {
    if (text === value) {
      setTyped(null);
      setProblem(null);
      return true;
    }
    const answer = onChange(text) ?? null;
    setProblem(answer);
    if (answer === null) setTyped(null);
    return answer === null;
  };
  return (
    <span className="relative inline-flex min-w-0">
      <input
        id={id}
        className={`min-h-7 min-w-0 rounded-sm border border-transparent bg-transparent px-1 hover:border-line focus:border-lapis focus:bg-raised ${className}`}
        size={Math.max(6, (typed ?? value).length + 1)}
        aria-label={label}
        aria-invalid={problem !== null}
        aria-describedby={problem ? problemId : undefined}
        autoComplete="off"
        spellCheck={false}
        placeholder={placeholder}
        value={typed ?? value}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setTyped(event.target.value);
          setProblem(null);
        }}
        onBlur={(event) => {
          if (takenByEnter.current) takenByEnter.current = false;
          else if (problem !== null || !finish(event.currentTarget.value)) {
            setTyped(null);
            setProblem(null);
          }
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter" && finish(event.currentTarget.value)) {
            takenByEnter.current = true;
            event.currentTarget.blur();
          }
          if (event.key === "Escape") {
            setTyped(null);
            setProblem(null);
            event.stopPropagation();
            event.currentTarget.blur();
          }
        }}
      />
      {problem && (
        <span
          id={problemId}
          role="alert"
          className="absolute top-full left-0 z-20 mt-1 w-72 rounded-box border border-brick bg-brick-soft px-2 py-1 text-small font-normal text-ink"
        >
          {problem}
        </span>
      )}
    </span>
  );
}
