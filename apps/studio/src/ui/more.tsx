"use client";

import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { Button } from "./button";

/** Settings that are seldom changed, in a box of their own over the screen. */
export function More({ label, title = label, children }: { label: string; title?: string; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button>{label} …</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          aria-label={title}
          className="z-40 flex max-w-110 flex-col items-start gap-2 rounded-box border border-line-strong bg-surface p-3"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A button in such a box that also closes it. */
export const CloseMore = Popover.Close;
