"use client";

import { Key } from "../ui/button";
import { chordInWords, inOrder, useKeyGroups } from "../ui/keys";
import { SheetDialog } from "../ui/sheet-dialog";
import { t } from "../ui/words";

/** Lists every key that works here. */
export function KeysPanel({ onClose }: { onClose: () => void }) {
  // What is nearest comes first, what works everywhere last.
  const groups = inOrder(useKeyGroups());
  return (
    <SheetDialog title={t("Keys")} description={t("What each key does here. Digits go to the stops from anywhere.")} open onClose={onClose}>
      <div className="columns-2 gap-8">
        {groups.map(({ title, bindings }) => (
          <section key={title} className="mb-5 break-inside-avoid">
            <h3 className="mb-1 font-bold text-lapis">{title}</h3>
            <dl>
              {bindings.map(({ keys, label }) => (
                <div key={keys} className="flex items-baseline justify-between gap-4 border-b border-line py-1">
                  <dt>{label}</dt>
                  <dd className="flex gap-1">
                    {keys.split(" ").map((chord) => (
                      <Key key={chord}>{chordInWords(chord)}</Key>
                    ))}
                  </dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <p className="text-muted">
        {t("In a number field, ↑ and ↓ change it by one, with Shift by ten; Enter takes what was typed, Esc leaves it as it was.")}
      </p>
    </SheetDialog>
  );
}
