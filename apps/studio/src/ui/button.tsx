import type { ButtonHTMLAttributes, ReactNode } from "react";

type Look = "plain" | "now" | "quiet" | "trouble";

const LOOKS: Record<Look, string> = {
  plain: "border border-line bg-raised text-ink hover:border-line-strong",
  now: "border border-now bg-now text-on-now font-semibold hover:brightness-105",
  quiet: "border border-transparent text-ink hover:bg-lapis-soft",
  trouble: "border border-line bg-raised text-brick hover:border-brick",
};

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly look?: Look;
  /** The key that does the same, shown at the right. */
  readonly hint?: string;
  readonly children: ReactNode;
}

export function Button({ look = "plain", hint, children, className = "", ...rest }: Props) {
  return (
    <button
      type="button"
      className={`inline-flex min-h-7 items-center justify-center gap-2 rounded-box px-3 py-1 whitespace-nowrap transition-colors disabled:cursor-default disabled:opacity-50 aria-disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...rest}
    >
      {children}
      {hint && <Key>{hint}</Key>}
    </button>
  );
}

/** A button of one sign, named for those who do not see it. */
export function IconButton({ label, children, look = "plain", className = "", ...rest }: Props & { readonly label: string }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className={`inline-flex size-7 shrink-0 items-center justify-center rounded-box transition-colors disabled:cursor-default disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...rest}
    >
      {children}
    </button>
  );
}

/** A key as it is printed on a keyboard. Decoration: the key is told in the keys panel and by aria-keyshortcuts. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd aria-hidden className="number rounded-box border border-current/30 px-1 text-small opacity-80">
      {children}
    </kbd>
  );
}
