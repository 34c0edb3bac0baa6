import type { ReactNode } from "react";

/** A lasting state that the user must know about, across the top of the screen. */
export function Banner({ text, children }: { text: string; children: ReactNode }) {
  return (
    <div className="flex items-center gap-3 border-b border-brick bg-brick-soft px-4 py-2">
      <p className="grow">{text}</p>
      {children}
    </div>
  );
}
