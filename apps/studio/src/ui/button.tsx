"use client";

import { Tooltip } from "radix-ui";
import type { ButtonHTMLAttributes, ReactNode } from "react";
import { chordInWords } from "./keys";

type Look = "plain" | "now" | "quiet" | "trouble";

const LOOKS: Record<Look, string> = {
  plain: "border border-line bg-raised text-ink hover:border-line-strong aria-pressed:border-lapis aria-pressed:bg-lapis-soft",
  now: "border border-now bg-now text-on-now font-semibold hover:brightness-105",
  quiet: "border border-transparent text-ink hover:bg-lapis-soft",
  trouble: "border border-line bg-raised text-brick hover:border-brick",
};

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly look?: Look;
  /** The key that does the same, shown at the right. */
  readonly hint?: string;
  /** What it does is not meant twice: the second click of a double click does nothing. */
  readonly once?: boolean;
  readonly children: ReactNode;
}

export function Button({ look = "plain", hint, once = false, children, className = "", onClick, ...rest }: Props) {
  return (
    <button
      type="button"
      onClick={once ? unlessDoubled(onClick) : onClick}
      className={`inline-flex min-h-7 items-center justify-center gap-2 pointer-coarse:min-h-10 rounded-box px-3 py-1 whitespace-nowrap transition-colors disabled:cursor-default disabled:opacity-50 aria-disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...rest}
    >
      {children}
      {hint && <Key>{hint}</Key>}
    </button>
  );
}

/** A button with an icon alone. Its tooltip says its name and its key. */
export function IconButton({
  label,
  children,
  look = "plain",
  once = false,
  className = "",
  onClick,
  ...rest
}: Props & { readonly label: string }) {
  const key = rest["aria-keyshortcuts"];
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        <button
          type="button"
          aria-label={label}
          onClick={once ? unlessDoubled(onClick) : onClick}
          className={`inline-flex size-7 shrink-0 pointer-coarse:size-10 items-center justify-center rounded-box transition-colors disabled:cursor-default disabled:opacity-50 ${LOOKS[look]} ${className}`}
          {...rest}
        >
          {children}
        </button>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={4}
          collisionPadding={6}
          className="z-50 flex max-w-72 items-center gap-2 rounded-box border border-line-strong bg-ink px-2 py-1 text-small text-paper"
        >
          {label}
          {key && <Key>{chordInWords(key.replace("Control", "Mod"))}</Key>}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}

function unlessDoubled(onClick: Props["onClick"]): Props["onClick"] {
  return (event) => event.detail < 2 && onClick?.(event);
}

/** A key as printed on a keyboard. Decorative: the keys panel and aria-keyshortcuts announce the key. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd aria-hidden className="number rounded-box border border-current/30 px-1 text-small">
      {children}
    </kbd>
  );
}
