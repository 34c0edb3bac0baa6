"use client";

import { X } from "lucide-react";
import { Button, IconButton } from "./button";
import { dismiss, useNotices } from "./notices";

const TONES = { plain: "border-l-lapis", good: "border-l-cactus", trouble: "border-l-brick" };

/** What there is to tell, at the foot of the screen; read out as it comes. */
export function NoticeList() {
  const notices = useNotices((state) => state.notices);
  return (
    <div
      role="status"
      aria-live="polite"
      className="pointer-events-none fixed right-3 bottom-9 z-30 flex max-h-[70vh] w-72 flex-col gap-2 overflow-y-auto"
    >
      {notices.map(({ id, tone, text, action }) => (
        <div
          key={id}
          className={`pointer-events-auto flex flex-wrap items-center gap-2 rounded-box border border-l-4 border-line bg-raised px-3 py-2 ${TONES[tone]}`}
        >
          <p className="w-full break-words">
            {tone === "trouble" && <strong className="text-brick">Trouble: </strong>}
            {text}
          </p>
          {action && (
            <Button
              onClick={() => {
                dismiss(id);
                action.run();
              }}
            >
              {action.label}
            </Button>
          )}
          <IconButton label="Dismiss" look="quiet" className="ml-auto" onClick={() => dismiss(id)}>
            <X size={14} />
          </IconButton>
        </div>
      ))}
    </div>
  );
}
