"use client";

import { Check, ChevronDown } from "lucide-react";
import { Popover } from "radix-ui";
import { useEffect, useId, useMemo, useRef, useState } from "react";
import { useInSight } from "./in-sight";
import { matching } from "./matching";
import { optionId, SearchField } from "./search-field";
import { SELECT_BUTTON, type SelectProps } from "./select-props";
import { t } from "./words";

/** A choice of so many that one searches in them: typing shortens the list, and only what is in sight of it is rendered. */
export function LongSelect<Value extends string | number>({
  label,
  value,
  options,
  onChange,
  placeholder,
  disabled = false,
  className = "",
}: SelectProps<Value>) {
  const [open, setOpen] = useState(false);
  const [begun, setBegun] = useState("");
  const at = options.findIndex(([each]) => each === value);
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setBegun("");
        setOpen(next);
      }}
    >
      <Popover.Trigger
        role="combobox"
        aria-haspopup="listbox"
        aria-label={label}
        disabled={disabled}
        onKeyDown={(event) => {
          // Letters begin the search, as they do in a short list.
          const isLetter = event.key.length === 1 && event.key !== " " && !event.ctrlKey && !event.metaKey && !event.altKey;
          if (!isLetter && event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
          event.preventDefault();
          setBegun(isLetter ? event.key : "");
          setOpen(true);
        }}
        className={`${SELECT_BUTTON} ${className}`}
      >
        <span className="truncate">{at < 0 ? placeholder : options[at]?.[1]}</span>
        <ChevronDown aria-hidden size={13} className="shrink-0 text-muted" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          data-overlay
          aria-label={label}
          align="start"
          sideOffset={3}
          collisionPadding={8}
          className="z-50 flex max-h-(--radix-popover-content-available-height) min-w-[max(12rem,var(--radix-popover-trigger-width))] max-w-[min(24rem,92vw)] flex-col rounded-box border border-line-strong bg-raised text-ink"
        >
          <Options
            label={label}
            options={options}
            at={at}
            begun={begun}
            onChoose={(k) => {
              setOpen(false);
              if (k !== at) onChange((options[k] as (typeof options)[number])[0]);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** How high an option is, in CSS pixels. */
const OPTION = 28;

/** `at` and what `onChoose` gets are positions in `options`; `begun` is what was typed to open the list. */
function Options({
  label,
  options,
  at,
  begun,
  onChoose,
}: {
  label: string;
  options: readonly (readonly [unknown, text: string])[];
  at: number;
  begun: string;
  onChoose: (index: number) => void;
}) {
  const [typed, setTyped] = useState(begun);
  const listed = useMemo(() => options.map(([, text], index) => ({ text, index })), [options]);
  const found = useMemo(() => matching(listed, typed, ({ text }) => text), [listed, typed]);
  const [{ reached, byPointer }, setReached] = useState({ reached: begun === "" ? Math.max(0, at) : 0, byPointer: false });
  const current = Math.min(reached, found.length - 1);
  const list = useRef<HTMLDivElement>(null);
  const listId = useId();
  const { shown, measure, bring } = useInSight({
    count: found.length,
    height: OPTION,
    kept: [current],
    list,
    scroller: () => list.current,
  });
  // What the keys reach is in sight, from the beginning what is chosen; what the pointer reaches is, and stays under it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another one reached moves the list
  useEffect(() => {
    if (byPointer) return;
    if (measure) bring(current);
    else list.current?.querySelector(`[data-index="${current}"]`)?.scrollIntoView({ block: "nearest" });
  }, [current, typed]);
  const page = () => Math.max(1, Math.floor((list.current?.clientHeight ?? 0) / OPTION) - 1);
  const reach = (index: number) => setReached({ reached: Math.max(0, Math.min(found.length - 1, index)), byPointer: false });
  return (
    <>
      <SearchField
        label={t("Type part of its name")}
        placeholder={t("Type part of its name")}
        listId={listId}
        reached={current}
        value={typed}
        onChange={(text) => {
          setTyped(text);
          reach(0);
        }}
        keys={{
          ArrowDown: () => reach(current + 1),
          ArrowUp: () => reach(current - 1),
          PageDown: () => reach(current + page()),
          PageUp: () => reach(current - page()),
          Enter: () => found[current] && onChoose(found[current].index),
        }}
        className="m-1.5 min-h-8 bg-surface px-2"
      />
      <div
        ref={list}
        id={listId}
        role="listbox"
        aria-label={label}
        tabIndex={-1}
        // A limit of its own: before the popover has its place it has none, and all options would count as in sight.
        className="max-h-[min(22rem,60vh)] min-h-0 grow overflow-y-auto p-1 pt-0"
      >
        {shown.map((each) => {
          if (!("index" in each)) return <div key={`before ${each.before}`} aria-hidden style={{ height: each.room }} />;
          const { text, index } = found[each.index] as (typeof found)[number];
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: keys are the field's, which names the reached one
            <div
              key={index}
              ref={measure}
              data-index={each.index}
              id={optionId(listId, each.index)}
              role="option"
              aria-selected={index === at}
              aria-setsize={found.length}
              aria-posinset={each.index + 1}
              tabIndex={-1}
              onClick={() => onChoose(index)}
              onPointerMove={() => each.index !== current && setReached({ reached: each.index, byPointer: true })}
              className={`flex min-h-7 cursor-default pointer-coarse:min-h-10 items-center justify-between gap-3 rounded-sm px-2 ${each.index === current ? "bg-lapis text-on-lapis" : ""}`}
            >
              <span className="truncate">{text}</span>
              {index === at ? <Check aria-hidden size={13} className="shrink-0" /> : <span className="w-3.5 shrink-0" />}
            </div>
          );
        })}
      </div>
      {found.length === 0 && <p className="px-3 pb-2 text-muted">{t("No matches.")}</p>}
    </>
  );
}
