"use client";

import { renameProject } from "@caravan/core/edit";
import { ChevronsUpDown } from "lucide-react";
import { useEffect, useState } from "react";
import { type Home, useHome } from "../project/home/home-state";
import { edit, useOpenProject, useProject } from "../project/open-project";
import { IconButton } from "../ui/button";
import { TextField } from "../ui/text-field";
import { t } from "../ui/words";

/** Shows the open project's name, editable, and where and when it was saved. */
export function ProjectName({ onProjects }: { onProjects: () => void }) {
  const name = useProject((project) => project.name);
  return (
    <div className="flex w-60 shrink-0 items-center gap-1 max-[1099px]:w-44 max-[799px]:w-32">
      <div className="min-w-0 grow">
        <h1 className="text-strong font-bold">
          <TextField
            label={t("Project name")}
            value={name}
            onChange={(next) => edit(renameProject, next)?.message}
            className="w-full font-bold"
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
  const saving = useOpenProject((open) => open.saving);
  const reader = useOpenProject((open) => open.access === "reader");
  const home = useHome((state) => state.home);
  const now = useNow(1000);
  const text =
    saving.kind === "failed"
      ? t("not saved")
      : reader
        ? t("Read-only: open in another tab")
        : saving.kind === "pending"
          ? t("saving …")
          : home
            ? savedThere(home, now)
            : t("saved in this browser{ago}", { ago: agoInWords(now - saving.at) });
  return (
    <p
      data-testid="saved"
      title={text}
      className={`truncate px-1 text-small ${saving.kind === "failed" ? "font-semibold text-brick" : "text-muted"}`}
    >
      {text}
    </p>
  );
}

function savedThere({ folder, state }: Home, now: number): string {
  if (state.kind === "kept") return t("saved in {folder}{ago}", { folder, ago: agoInWords(now - state.at) });
  return state.kind === "waiting" ? t("saving into {folder} …", { folder }) : t("saved in this browser, not in {folder}", { folder });
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

function agoInWords(ms: number): string {
  const seconds = Math.max(0, Math.round(ms / 1000));
  if (seconds < 60) return t(", {seconds} s ago", { seconds });
  if (seconds < 3600) return t(", {minutes} min ago", { minutes: Math.round(seconds / 60) });
  return seconds < 86_400 ? t(", {hours} h ago", { hours: Math.round(seconds / 3600) }) : "";
}
