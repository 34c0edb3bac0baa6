"use client";

import { CircleHelp, Moon, Redo2, Search, Sun, Undo2 } from "lucide-react";
import { useDeferredValue, useMemo } from "react";
import { useFindings } from "../project/findings";
import { useOpenProject, useProject } from "../project/open-project";
import { go, STOPS, type Stop, useView } from "../project/view";
import { Button, IconButton } from "../ui/button";
import { t } from "../ui/words";
import { redoNow, undoNow } from "./commands";
import { ProjectName } from "./project-name";
import { ROAD_PIECE, STOP_MARK, StopMark } from "./stop-mark";
import { STOP_PARTS } from "./stops";
import { useTheme } from "./theme";

/** The top bar: the project, the road with its stops, undo and redo by name. */
export function Road({ onFind, onKeys, onProjects }: { onFind: () => void; onKeys: () => void; onProjects: () => void }) {
  const { theme, toggle } = useTheme();
  return (
    <header
      data-region="road"
      tabIndex={-1}
      className="flex h-14.5 shrink-0 items-center gap-3 border-b border-line px-3 max-[39.9375em]:h-auto max-[39.9375em]:flex-wrap max-[39.9375em]:gap-y-0 max-[39.9375em]:pt-1"
    >
      <ProjectName onProjects={onProjects} />
      <nav aria-label={t("Stops")} className="grow max-[39.9375em]:order-last max-[39.9375em]:basis-full">
        <ol className="mx-auto flex max-w-180 items-center">
          {STOPS.map((stop, k) => (
            <StopLink key={stop} stop={stop} number={k + 1} />
          ))}
        </ol>
      </nav>
      <UndoButtons />
      <IconButton label={t("Find a command or a place")} onClick={onFind} aria-keyshortcuts="Control+K">
        <Search size={15} />
      </IconButton>
      <IconButton label={theme === "dusk" ? t("Go to day") : t("Go to dusk")} onClick={toggle}>
        {theme === "dusk" ? <Sun size={15} /> : <Moon size={15} />}
      </IconButton>
      <IconButton label={t("Keys and help")} onClick={onKeys} aria-keyshortcuts="?">
        <CircleHelp size={15} />
      </IconButton>
    </header>
  );
}

function StopLink({ stop, number }: { stop: Stop; number: number }) {
  const here = useView((view) => view.stop === stop);
  const { text, trouble } = useStopState(stop);
  return (
    <>
      {number > 1 && <li aria-hidden className={ROAD_PIECE} />}
      <li>
        <button
          type="button"
          onClick={() => go(stop)}
          aria-current={here ? "page" : undefined}
          aria-keyshortcuts={String(number)}
          className={`${STOP_MARK} hover:bg-lapis-soft`}
        >
          <StopMark number={number} title={STOP_PARTS[stop].title} here={here}>
            <span className={`block text-small ${trouble ? "text-brick" : "text-muted"}`}>{text}</span>
          </StopMark>
        </button>
      </li>
    </>
  );
}

/** How much there is at a stop, or what needs attention. */
function useStopState(stop: Stop): { text: string; trouble: boolean } {
  // Counting a large project takes some milliseconds: the edit shows first, the road follows.
  const project = useDeferredValue(useProject((each) => each));
  const findings = useFindings();
  const state = useMemo(() => STOP_PARTS[stop].state(project, findings), [project, findings, stop]);
  return typeof state === "string" ? { text: state, trouble: false } : { text: state.trouble, trouble: true };
}

function UndoButtons() {
  const { entries, cursor } = useOpenProject((open) => open.history);
  const canEdit = useOpenProject((open) => open.access === "owner");
  const last = entries[cursor - 1];
  const next = entries[cursor];
  return (
    <div className="flex items-center gap-1">
      <Button
        onClick={undoNow}
        disabled={!last || !canEdit}
        aria-label={last ? t("Undo: {label}", { label: last.label }) : t("Undo")}
        title={last ? t("Undo: {label}", { label: last.label }) : t("Nothing to undo")}
        className="w-44 justify-start max-[87.4375em]:w-32 max-[74.9375em]:w-auto pointer-coarse:max-[87.4375em]:w-auto"
      >
        <Undo2 size={14} className="shrink-0" />
        <span className="truncate max-[74.9375em]:sr-only pointer-coarse:max-[87.4375em]:sr-only">
          {last ? t("Undo: {label}", { label: last.label }) : t("Undo")}
        </span>
      </Button>
      <IconButton label={next ? t("Redo: {label}", { label: next.label }) : t("Redo")} onClick={redoNow} disabled={!next || !canEdit}>
        <Redo2 size={14} />
      </IconButton>
    </div>
  );
}
