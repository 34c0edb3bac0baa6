import type { ReactNode } from "react";
import { Button } from "./button";

/** An empty surface: says what will appear there, and links to what comes first. */
export function EmptyPanel({
  title,
  children,
  next,
}: {
  title: string;
  children: ReactNode;
  next?: { readonly label: string; readonly run: () => void };
}) {
  return (
    <div className="flex grow flex-col items-center justify-center gap-3 rounded-box border-2 border-dashed border-line-strong p-4 text-center">
      <p className="text-title font-bold">{title}</p>
      <p className="max-w-96 text-muted">{children}</p>
      {next && (
        <Button look="now" onClick={next.run}>
          {next.label}
        </Button>
      )}
    </div>
  );
}
