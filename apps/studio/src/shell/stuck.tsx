"use client";

import { whyOf } from "@caravan/core/model";
import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import { listProjects, openProject, saveRawData, startProject } from "../project/projects";
import { Button } from "../ui/button";
import { NoticeList } from "../ui/notice-list";
import { t } from "../ui/words";
import { openDemo } from "./start";

/** Shows why no project is open and which one failed, with every way on: no failure to open is a dead end. */
export interface Problem {
  readonly text: string;
  /** The project that does not open, if it is one. */
  readonly id: string | null;
  /** Whether this browser stores anything; otherwise none can be opened. */
  readonly stores: boolean;
}

export function Stuck({ problem, onOpen }: { problem: Problem; onOpen: () => void }) {
  return (
    <main className="mx-auto flex h-full max-w-xl flex-col overflow-y-auto p-10">
      <h1 className="mb-2 text-title font-bold">
        {problem.stores ? t("The project could not be opened") : t("Nothing can be stored here")}
      </h1>
      <p className="mb-4">{problem.text}</p>
      {problem.stores ? <WaysOn problem={problem} onOpen={onOpen} /> : <TryAgain look="now" />}
      <div className="mt-6">
        <NoticeList />
      </div>
    </main>
  );
}

function TryAgain({ look }: { look: "now" | "quiet" }) {
  return (
    <div>
      <Button look={look} onClick={() => location.reload()}>
        {t("Try again")}
      </Button>
    </div>
  );
}

function WaysOn({ problem, onOpen }: { problem: Problem; onOpen: () => void }) {
  const { id } = problem;
  const rows = (useLiveQuery(listProjects, []) ?? []).filter((row) => row.id !== id);
  const [trouble, setTrouble] = useState<string | null>(null);
  const go = (work: Promise<unknown>) => work.then(onOpen).catch((error: unknown) => setTrouble(whyOf(error)));
  const save = () => id !== null && saveRawData(id).catch((error: unknown) => setTrouble(String(error)));
  return (
    <>
      {trouble && (
        <p role="alert" className="mb-4 text-brick">
          {trouble}
        </p>
      )}
      <div className="mb-6 flex flex-wrap gap-2">
        {id !== null && (
          <Button look="now" onClick={() => void save()}>
            {t("Save its raw data")}
          </Button>
        )}
        <Button onClick={() => void go(startProject())}>{t("New project")}</Button>
        <Button onClick={() => void go(openDemo())}>{t("Open the demo")}</Button>
        <TryAgain look="quiet" />
      </div>
      {rows.length > 0 && (
        <>
          <h2 className="font-bold">{t("Other projects in this browser")}</h2>
          <ul aria-label={t("Projects")} className="divide-y divide-line border-y border-line">
            {rows.map((row) => (
              <li key={row.id} className="flex items-center justify-between gap-3 py-1.5 pl-2">
                <span className="min-w-0 truncate">{row.name}</span>
                <Button onClick={() => void go(openProject(row.id))}>{t("Open")}</Button>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
