"use client";

import { X } from "lucide-react";
import { Button, IconButton } from "./button";
import { dismiss, holdNotices, letNoticesGo, useNotices } from "./notices";
import { t } from "./words";

const TONES = { plain: "border-l-lapis", good: "border-l-cactus", trouble: "border-l-brick" };

/**
 * What there is to tell, read out as it comes. It takes room of its own, at the foot of the player's column or, where that is put away, of the
 * screen: so nothing is covered that is needed next. It is held while it is pointed at or has the focus, and F6 goes there too.
 *
 * Not Radix's Toast: that one is a layer above all others and takes Escape first, so with a notice on the screen a dialog would close at
 * the second press only, and trouble would go unread.
 */
export function NoticeList() {
  const notices = useNotices((state) => state.notices);
  return (
    <div
      role="status"
      aria-live="polite"
      data-region={notices.length > 0 ? "notices" : undefined}
      onFocus={holdNotices}
      onBlur={letNoticesGo}
      onPointerEnter={holdNotices}
      onPointerLeave={letNoticesGo}
      className={`flex max-h-[45vh] shrink-0 flex-col gap-2 overflow-y-auto ${notices.length > 0 ? "border-t border-line p-2" : ""}`}
    >
      {notices.map(({ id, tone, text, action }) => (
        <div
          key={id}
          className={`flex items-start gap-2 rounded-box border border-l-4 border-line bg-raised py-1.5 pr-1.5 pl-3 ${TONES[tone]}`}
        >
          <div className="min-w-0 grow">
            <p className="break-words">
              {tone === "trouble" && <strong className="text-brick">{t("Problem:")} </strong>}
              {text}
            </p>
            {action && (
              <Button
                className="mt-1"
                onClick={() => {
                  dismiss(id);
                  action.run();
                }}
              >
                {action.label}
              </Button>
            )}
          </div>
          <IconButton label={t("Dismiss")} look="quiet" onClick={() => dismiss(id)}>
            <X size={14} />
          </IconButton>
        </div>
      ))}
    </div>
  );
}
