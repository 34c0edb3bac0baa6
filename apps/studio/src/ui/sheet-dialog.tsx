"use client";

import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { type ReactNode, useRef } from "react";
import { IconButton } from "./button";
import { t } from "./words";

const FIELDS = 'input:not([disabled]), textarea, [role="combobox"]';

/** A dialog over the screen; Escape or a click beside it closes it. What asks for the focus has it, else its first field, else what it says. */
export function SheetDialog({
  title,
  description,
  open,
  onClose,
  children,
}: {
  title: string;
  description: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  const said = useRef<HTMLElement>(null);
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[rgb(20_16_10/0.45)]" />
        <Dialog.Content
          data-modal
          onOpenAutoFocus={(event) => {
            event.preventDefault();
            // What asked for the focus itself has it already.
            if (said.current?.contains(document.activeElement)) return;
            (said.current?.querySelector<HTMLElement>(FIELDS) ?? said.current)?.focus();
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
