"use client";

import { ContextMenu } from "radix-ui";
import { type ReactElement, useRef, useState } from "react";
import { Key } from "./button";
import { chordInWords } from "./keys";

export interface MenuItem {
  readonly label: string;
  /** The key that does the same. */
  readonly keys?: string;
  readonly run: () => unknown;
  readonly disabled?: boolean;
}

/** A menu item; null stands for a separator. */
export type Menu = readonly (MenuItem | null)[];

/**
 * Gives an element a context menu: right-click, long touch or the menu key. `menuOf` returns the actions for what is there, and may select
 * it first; null for none. Every action also has a button or a key elsewhere.
 */
export function WithMenu({ label, menuOf, children }: { label: string; menuOf: (target: Element) => Menu | null; children: ReactElement }) {
  const [menu, setMenu] = useState<Menu>([]);
  const wanted = useRef<MenuItem | null>(null);
  return (
    <ContextMenu.Root>
      <ContextMenu.Trigger
        asChild
        onContextMenu={(event) => {
          const next = event.target instanceof Element ? menuOf(event.target) : null;
          if (next) setMenu(next);
          else event.preventDefault();
        }}
      >
        {children}
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content
          aria-label={label}
          collisionPadding={8}
          // What was asked for may put the focus elsewhere, so it is done when the menu has given its own back.
          onCloseAutoFocus={(event) => {
            const item = wanted.current;
            wanted.current = null;
            if (!item) return;
            event.preventDefault();
            item.run();
          }}
          className="z-50 min-w-44 rounded-box border border-line-strong bg-raised p-1 text-ink"
        >
          {menu.map((item, k) =>
            item === null ? (
              <ContextMenu.Separator key={`line ${k}`} className="my-1 h-px bg-line" />
            ) : (
              <ContextMenu.Item
                key={item.label}
                disabled={item.disabled === true}
                onSelect={() => {
                  wanted.current = item;
                }}
                className="flex min-h-7.5 cursor-default pointer-coarse:min-h-10 items-center justify-between gap-6 rounded-sm px-2 outline-none data-[disabled]:opacity-50 data-[highlighted]:bg-lapis data-[highlighted]:text-on-lapis"
              >
                {item.label}
                {item.keys && <Key>{chordInWords(item.keys)}</Key>}
              </ContextMenu.Item>
            ),
          )}
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  );
}
