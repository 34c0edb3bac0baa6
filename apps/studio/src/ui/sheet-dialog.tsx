"use client";

import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { type ReactNode, type RefObject, useEffect, useLayoutEffect, useRef } from "react";
import { IconButton } from "./button";
import { useOnceKeysRest } from "./once-keys-rest";
import { isSecondPress, lastPress, noteArrival } from "./stray-presses";
import { t } from "./words";

const FIELDS = 'input:not([disabled]), textarea, [role="combobox"]';

/**
 * A dialog over the screen; Escape or a click beside it closes it. What asks for the focus has it, else its first field, else what it says.
 * `onEnter` is what its button with the hint `Enter` does: it works from choices and ticks too, and where nothing has the focus. One that
 * `arrives` opens by itself, such as when files are read, and takes neither keys nor presses that were meant for something else.
 */
export function SheetDialog({
  title,
  description,
  open: isAsked,
  arrives = false,
  onClose,
  onEnter,
  children,
}: {
  title: string;
  description: string;
  open: boolean;
  arrives?: boolean;
  onClose: () => void;
  onEnter?: () => void;
  children: ReactNode;
}) {
  const said = useRef<HTMLElement>(null);
  const openedBy = useRef(0);
  const isRestful = useOnceKeysRest(isAsked && arrives);
  const open = isAsked && (isRestful || !arrives);
  useEnter(said, open ? onEnter : undefined);
  useLayoutEffect(() => {
    if (open && arrives) noteArrival();
  }, [open, arrives]);
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[rgb(20_16_10/0.45)]" />
        <Dialog.Content
          data-modal
          onOpenAutoFocus={(event) => {
            event.preventDefault();
            openedBy.current = lastPress();
            // What asked for the focus itself has it already.
            if (said.current?.contains(document.activeElement)) return;
            (said.current?.querySelector<HTMLElement>(FIELDS) ?? said.current)?.focus();
          }}
          onPointerDownOutside={(event) => {
            // The second click of a double click that opened it.
            if (isSecondPress(openedBy.current, event.detail.originalEvent)) event.preventDefault();
          }}
          className="fixed top-1/2 left-1/2 z-50 flex max-h-[85vh] w-[min(46rem,92vw)] -translate-1/2 flex-col rounded-box border border-line bg-paper"
        >
          <header className="flex items-start justify-between gap-4 border-b border-line px-5 py-4">
            <div>
              <Dialog.Title className="text-title font-bold">{title}</Dialog.Title>
              <Dialog.Description className="text-muted">{description}</Dialog.Description>
            </div>
            <Dialog.Close asChild>
              <IconButton label={t("Close")} look="quiet">
                <X size={16} />
              </IconButton>
            </Dialog.Close>
          </header>
          <section ref={said} tabIndex={0} aria-label={title} className="overflow-y-auto px-5 py-4">
            {children}
          </section>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Does it on Enter, unless the focus is on something with a use of its own for the key. A key held since before does nothing. */
function useEnter(dialog: RefObject<HTMLElement | null>, what: (() => void) | undefined): void {
  const latest = useRef(what);
  latest.current = what;
  const isOn = what !== undefined;
  useEffect(() => {
    if (!isOn) return;
    const listen = (event: KeyboardEvent) => {
      const { target } = event;
      // Held, it would also press the button of the dialog after this one.
      if (event.key === "Enter" && event.repeat && target instanceof HTMLButtonElement) event.preventDefault();
      if (event.key !== "Enter" || event.repeat || !(target instanceof Element)) return;
      const isChoice = dialog.current?.contains(target) && target.matches('[role="radio"], [role="checkbox"]');
      if (!isChoice && !target.contains(dialog.current)) return;
      event.preventDefault();
      event.stopPropagation();
      latest.current?.();
    };
    addEventListener("keydown", listen, { capture: true });
    return () => removeEventListener("keydown", listen, { capture: true });
  }, [isOn, dialog]);
}
