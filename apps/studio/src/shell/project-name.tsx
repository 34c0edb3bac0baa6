"use client";

import { renameProject } from "@caravan/core/edit";
import { ChevronsUpDown } from "lucide-react";
import { useEffect, useState } from "react";
import { type Home, useHome } from "../project/home/home-state";
import { edit, useOpenProject, useProject } from "../project/open-project";
import { IconButton } from "../ui/button";
import { useMedia } from "../ui/media";
import { TextField } from "../ui/text-field";
import { t } from "../ui/words";

/** Shows the open project's name, editable, and where and when it was saved. */
export function ProjectName({ onProjects }: { onProjects: () => void }) {
  const name = useProject((project) => project.name);
  return (
    <div className="flex w-60 shrink-0 items-center gap-1 max-[68.6875em]:w-44 max-[49.9375em]:w-32">
      <div className="min-w-0 grow">
        <h1 className="text-strong font-bold">
          <TextField
            label={t("Project name")}
            value={name}
            onChange={(next) => edit(renameProject, next)?.message}
            className="w-full text-ellipsis font-bold"
          />
        </h1>
        <SavedWhere />
      </div>
      <IconButton label={t("All projects")} onClick={onProjects} aria-keyshortcuts="p">
        <ChevronsUpDown size={15} />
      </IconButton>
    </div>
  );
}

function SavedWhere() {
  const { text, short, failed, at } = useSaving();
  const narrow = useMedia("(max-width: 49.9375em)");
  const ago = useAgo(at);
  return (
    <p
      data-testid="saved"
      title={ago ? `${text} · ${ago}` : text}
      className={`truncate px-1 text-small ${failed ? "font-semibold text-brick" : "text-muted"}`}
    >
      {narrow ? short : text}
      {ago && <span className="max-[68.6875em]:hidden"> · {ago}</span>}
    </p>
  );
}

interface SavingInWords {
  readonly text: string;
  /** For where there is little room. */
  readonly short: string;
  readonly failed?: boolean;
  /** When it was saved, in ms since 1970, if it is. */
  readonly at?: number;
}

function useSaving(): SavingInWords {
  const saving = useOpenProject((open) => open.saving);
  const reader = useOpenProject((open) => open.access === "reader");
  const home = useHome((state) => state.home);
  if (saving.kind === "failed") return { text: t("not saved"), short: t("not saved"), failed: true };
  if (reader) return { text: t("Read-only: open in another tab"), short: t("read-only") };
  if (saving.kind === "pending") return { text: t("saving …"), short: t("saving …") };
  return home ? savedThere(home) : { text: t("saved in this browser"), short: t("saved"), at: saving.at };
}

function savedThere({ folder, state }: Home): SavingInWords {
  if (state.kind === "kept") return { text: t("saved in {folder}", { folder }), short: t("saved"), at: state.at };
  if (state.kind === "waiting") return { text: t("saving into {folder} …", { folder }), short: t("saving …") };
  return { text: t("saved in this browser, not in {folder}", { folder }), short: t("not in folder") };
}

/** The time, updated at this interval in ms. */
function useNow(every: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), every);
    return () => clearInterval(timer);
  }, [every]);
  return now;
}

/** How long ago that was, once a second; nothing after a day. */
function useAgo(at: number | undefined): string {
  const now = useNow(1000);
  if (at === undefined) return "";
  const seconds = Math.max(0, Math.round((now - at) / 1000));
  if (seconds < 60) return t("{seconds} s ago", { seconds });
  if (seconds < 3600) return t("{minutes} min ago", { minutes: Math.round(seconds / 60) });
  return seconds < 86_400 ? t("{hours} h ago", { hours: Math.round(seconds / 3600) }) : "";
}
