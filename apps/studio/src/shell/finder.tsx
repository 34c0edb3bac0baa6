"use client";

import type { Project } from "@caravan/core/model";
import { Dialog } from "radix-ui";
import { useId, useMemo, useRef, useState } from "react";
import { useProject } from "../project/open-project";
import { chooseAction, chooseClip, chooseSource, go, type Stop } from "../project/view";
import { Key } from "../ui/button";
import { chordInWords, inOrder, type KeyGroup, pressOf, useKeyGroups } from "../ui/keys";
import { matching } from "../ui/matching";
import { optionId, SearchField } from "../ui/search-field";
import { t } from "../ui/words";
import { FINDER_LABEL } from "./commands";

/** Something that can be found by its words and run. */
interface Find {
  readonly id: string;
  readonly label: string;
  /** Its group: a group of keys, or the kind of thing it is. */
  readonly kind: string;
  readonly chord: string | null;
  readonly run: () => unknown;
}

/** Nobody reads more than this; further typing shortens the list. */
const MOST = 60;

/** Every command that works here, and every source, clip and action, found by typing: Enter does the one that is chosen. */
export function Finder({ onClose }: { onClose: () => void }) {
  return (
    <Dialog.Root open onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[rgb(20_16_10/0.45)]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[12vh] left-1/2 z-50 flex max-h-[70vh] w-[min(38rem,92vw)] -translate-x-1/2 flex-col rounded-box border border-line bg-paper"
        >
          <Dialog.Title className="px-4 pt-3 font-bold">{FINDER_LABEL}</Dialog.Title>
          <Finding onClose={onClose} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Finding({ onClose }: { onClose: () => void }) {
  const groups = useKeyGroups();
  const project = useProject((each) => each);
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const list = useRef<HTMLDivElement>(null);
  const listId = useId();
  const all = useMemo(() => [...commandsIn(groups), ...placesIn(project)], [groups, project]);
  const found = useMemo(() => matching(all, text, nameOf, wordsOf).slice(0, MOST), [all, text]);
  const chosen = Math.min(at, found.length - 1);
  const choose = (index: number) => {
    const next = (index + found.length) % Math.max(1, found.length);
    setAt(next);
    list.current?.children[next]?.scrollIntoView({ block: "nearest" });
  };
  const run = (find: Find | undefined) => {
    if (!find) return;
    onClose();
    // The focus returns to its earlier place first, so that the command means what it would have meant there.
    setTimeout(find.run, 0);
  };
  return (
    <>
      <SearchField
        label={t("What to find")}
        placeholder={t("Type part of its name")}
        listId={listId}
        reached={chosen}
        value={text}
        onChange={(typed) => {
          setText(typed);
          setAt(0);
        }}
        keys={{
          ArrowDown: () => choose(chosen + 1),
          ArrowUp: () => choose(chosen - 1),
          Enter: () => run(found[chosen]),
        }}
        className="mx-4 my-2.5 min-h-9 bg-raised px-3"
      />
      <div
        ref={list}
        id={listId}
        role="listbox"
        aria-label={t("Found")}
        className="min-h-0 grow overflow-y-auto border-t border-line p-1.5"
      >
        {found.map((find, k) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: keys are the field's, which names the chosen one
          <div
            key={find.id}
            id={optionId(listId, k)}
            role="option"
            aria-selected={k === chosen}
            tabIndex={-1}
            onClick={() => run(find)}
            className={`flex min-h-8 cursor-default items-center justify-between gap-3 rounded-box border-l-4 px-2 ${k === chosen ? "border-l-now bg-lapis-soft" : "border-l-transparent hover:bg-lapis-soft"}`}
          >
            <span className="truncate">{find.label}</span>
            <span className="flex shrink-0 items-center gap-2">
              <span className="text-small text-muted">{find.kind}</span>
              {find.chord !== null && <Key>{chordInWords(find.chord)}</Key>}
            </span>
          </div>
        ))}
      </div>
      {found.length === 0 && <p className="px-4 pb-3 text-muted">{t("No matches.")}</p>}
    </>
  );
}

/** The commands of all screens that are shown, in the order in which keys ask them; of two on one key the one that the key means. */
function commandsIn(groups: readonly KeyGroup[]): Find[] {
  const taken = new Set<string>();
  return inOrder(groups).flatMap(({ title, bindings }) =>
    bindings.flatMap(({ keys, label, run }, k): Find[] => {
      const [chord] = keys.split(" ");
      // The command that opens this does not find itself.
      if (!chord || taken.has(chord) || label === FINDER_LABEL) return [];
      taken.add(chord);
      return [{ id: `command ${title} ${k}`, label, kind: title, chord, run: () => run(pressOf(chord)) }];
    }),
  );
}

function placesIn({ sources, clips, actions }: Project): Find[] {
  const place = (kind: string, id: string, label: string, stop: Stop, choose: () => void): Find => {
    const run = () => {
      choose();
      go(stop);
    };
    return { id: `${kind} ${id}`, label, kind, chord: null, run };
  };
  return [
    ...actions.map(({ name }) => place(t("Action"), name, name, "clips", () => chooseAction(name))),
    ...clips.map(({ name }) => place(t("Clip"), name, name, "clips", () => chooseClip(name))),
    ...sources.map(({ id, name }) => place(t("Source"), id, name, "frames", () => chooseSource(id))),
  ];
}

function nameOf({ label }: Find): string {
  return label;
}

function wordsOf({ label, kind }: Find): string {
  return `${label} ${kind}`;
}
