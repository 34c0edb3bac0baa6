"use client";

import { ChevronDown, ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";
import type { ReactNode } from "react";
import { fold, useFolded } from "./folded";

/** A foldable section of the details under the player. `part` identifies it if its title changes. */
export function Detail({ title, part = title, aside, children }: { title: string; part?: string; aside?: ReactNode; children: ReactNode }) {
  const folded = useFolded(part);
  return (
    <Collapsible.Root asChild open={!folded} onOpenChange={(open) => fold(part, !open)}>
      <section className="border-b border-line px-3.5 py-3">
        <div className={`flex items-baseline justify-between gap-2 ${folded ? "" : "mb-1.5"}`}>
          <h3 className="font-semibold text-muted">
            <Collapsible.Trigger className="relative -left-2.5 flex items-center gap-0.5 text-left hover:text-ink">
              {folded ? <ChevronRight size={13} className="shrink-0" /> : <ChevronDown size={13} className="shrink-0" />}
              {title}
            </Collapsible.Trigger>
          </h3>
          {aside && <span className="text-right text-small text-muted">{aside}</span>}
        </div>
        <Collapsible.Content>{children}</Collapsible.Content>
      </section>
    </Collapsible.Root>
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
