"use client";

import { Popover } from "radix-ui";
import type { ReactElement, ReactNode } from "react";
import { Button } from "./button";

/** Rarely used settings in a popover. */
export function More({ label, title = label, children }: { label: string; title?: string; children: ReactNode }) {
  return (
    <OverScreen title={title} opens={<Button>{label} …</Button>}>
      {children}
    </OverScreen>
  );
}

/** A box over the screen that something other than a worded button opens. */
export function OverScreen({ title, opens, children }: { title: string; opens: ReactElement; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>{opens}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          aria-label={title}
          className="z-40 flex max-h-[80vh] max-w-110 flex-col items-start gap-2 overflow-y-auto *:shrink-0 rounded-box border border-line-strong bg-surface p-3"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A button in such a box that also closes it. */
export const CloseMore = Popover.Close;
