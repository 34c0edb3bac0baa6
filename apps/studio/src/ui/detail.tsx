import type { ReactNode } from "react";

/** A part of the details under the player. */
export function Detail({ title, aside, children }: { title: string; aside?: ReactNode; children: ReactNode }) {
  return (
    <section className="border-b border-line px-3.5 py-3">
      <h3 className="mb-1.5 flex justify-between gap-2 font-semibold text-muted">
        {title}
        {aside && <span className="font-normal text-small">{aside}</span>}
      </h3>
      {children}
    </section>
  );
}

/** Facts as pairs of a word and a value. */
export function Facts({ facts }: { facts: readonly (readonly [word: string, value: ReactNode])[] }) {
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5">
      {facts.map(([word, value]) => (
        <div key={word} className="contents">
          <dt className="text-muted">{word}</dt>
          <dd className="number text-right">{value}</dd>
        </div>
      ))}
    </dl>
  );
}
