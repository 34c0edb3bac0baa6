"use client";

import { counted, whyOf } from "@caravan/core/model";
import { useLiveQuery } from "dexie-react-hooks";
import { FileInput, FolderInput, FolderOpen, Plus, Save } from "lucide-react";
import { useHome } from "../project/home/home-state";
import { takeInAndGo } from "../project/import-later";
import { canLinkFolders } from "../project/linked/folder";
import { useOpenProject } from "../project/open-project";
import {
  duplicateProject,
  listProjects,
  listRemoved,
  openProject,
  removeProject,
  renameStored,
  restoreProject,
  saveRawData,
  startProject,
} from "../project/projects";
import { type StoredProject, storage } from "../project/storage";
import { deleteForGood } from "../project/sweep";
import { Button } from "../ui/button";
import { chooseFiles } from "../ui/files";
import { inBackground } from "../ui/in-background";
import { say, sayTrouble } from "../ui/notices";
import { withParts } from "../ui/rich-words";
import { SheetDialog } from "../ui/sheet-dialog";
import { TextField } from "../ui/text-field";
import { t } from "../ui/words";
import { keepInFolderNow, openFolderNow, saveAsFile } from "./commands";
import { openDemo } from "./start";

/** Lists all projects in this browser: open, create, rename, duplicate, remove and restore. */
export function ProjectsDialog({ onClose }: { onClose: () => void }) {
  const rows = useLiveQuery(listProjects, []) ?? [];
  const removed = useLiveQuery(listRemoved, []) ?? [];
  const close = (work: Promise<unknown>) => {
    onClose();
    work.catch(sayTrouble);
  };
  // A project that does not open can still be saved as raw data.
  const openOne = (id: string) => {
    onClose();
    openProject(id).catch((error: unknown) =>
      say({
        tone: "trouble",
        text: whyOf(error),
        action: { label: t("Save its raw data"), run: () => inBackground(saveRawData(id)) },
      }),
    );
  };
  return (
    <SheetDialog
      title={t("Projects")}
      description={t(
        "They are stored in this browser, and also in a folder if you choose one. Save one to a file to move it or keep a copy.",
      )}
      open
      onClose={onClose}
    >
      <div className="mb-4 flex flex-wrap gap-2">
        <Button look="now" once onClick={() => close(startProject())}>
          <Plus size={15} /> {t("New project")}
        </Button>
        <Button onClick={() => close(chooseFiles(".caravan", false).then(takeInAndGo))}>
          <FileInput size={15} /> {t("Open a file")}
        </Button>
        <Button onClick={() => close(saveAsFile())}>
          <Save size={15} /> {t("Save this one to a file")}
        </Button>
        <Button onClick={() => close(openDemo())}>{t("Open a new copy of the demo")}</Button>
      </div>
      {canLinkFolders() && <Folders close={close} />}
      <ul aria-label={t("Projects")} className="divide-y divide-line border-y border-line">
        {rows.map((row) => (
          <ProjectRow key={row.id} row={row} onOpen={() => openOne(row.id)} />
        ))}
      </ul>
      {removed.length > 0 && (
        <>
          <h3 className="mt-5 font-bold">{t("Removed")}</h3>
          <p className="mb-1 text-small text-muted">
            {t("Kept for at least 30 days, then deleted with the pictures that no other project uses.")}
          </p>
          <ul aria-label={t("Removed projects")} className="divide-y divide-line border-y border-line">
            {removed.map((row) => (
              <li key={row.id} className="flex items-center justify-between gap-3 py-1">
                <span className="text-muted">{row.name}</span>
                <span className="flex gap-1">
                  <Button onClick={() => inBackground(restoreProject(row.id))}>{t("Bring back")}</Button>
                  <Button look="quiet" onClick={() => inBackground(deleteForGood(row.id))}>
                    {t("Delete for good")}
                  </Button>
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </SheetDialog>
  );
}

/** Projects kept in a folder of this computer, such as a game's repository. */
function Folders({ close }: { close: (work: Promise<unknown>) => void }) {
  const home = useHome((state) => state.home);
  return (
    <section aria-label={t("Folders")} className="mb-4 flex flex-wrap items-center gap-2">
      <Button onClick={() => close(openFolderNow())}>
        <FolderOpen size={15} /> {t("Open a project's folder")}
      </Button>
      {home ? (
        <>
          <p>{withParts("This one is kept in {folder}: every change is saved there, too.", { folder: <strong>{home.folder}</strong> })}</p>
          <Button look="quiet" onClick={() => close(import("../project/home/home").then(({ stopKeeping }) => stopKeeping()))}>
            {t("Stop")}
          </Button>
        </>
      ) : (
        <Button onClick={() => close(keepInFolderNow())}>
          <FolderInput size={15} /> {t("Keep this one in a folder")}
        </Button>
      )}
    </section>
  );
}

function ProjectRow({ row, onOpen }: { row: StoredProject; onOpen: () => void }) {
  const isOpen = useOpenProject((open) => open.id === row.id);
  const folder = useLiveQuery(async () => (await storage.homes.get(row.id))?.folder.name, [row.id]);
  const remove = () =>
    inBackground(
      removeProject(row.id).then(() =>
        say({
          tone: "plain",
          text: t("Removed {name}.", { name: row.name }),
          action: { label: t("Bring back"), run: () => inBackground(restoreProject(row.id)) },
        }),
      ),
    );
  return (
    <li className={`flex items-center gap-2 py-1.5 pl-2 ${isOpen ? "border-l-4 border-l-now bg-lapis-soft" : ""}`}>
      <div className="min-w-0 grow">
        {isOpen ? (
          <strong className="px-1">{row.name}</strong>
        ) : (
          <TextField
            label={t("Name of {name}", { name: row.name })}
            value={row.name}
            onChange={(name) => rename(row.id, name)}
            className="font-semibold"
          />
        )}
        <p className="px-1 text-small text-muted">
          {folder === undefined
            ? t("{sources}, {clips} · saved {date}", {
                sources: counted(row.sources, "source"),
                clips: counted(row.clips, "clip"),
                date: new Date(row.savedAt).toLocaleString(),
              })
            : t("{sources}, {clips} · kept in {folder} · saved {date}", {
                sources: counted(row.sources, "source"),
                clips: counted(row.clips, "clip"),
                date: new Date(row.savedAt).toLocaleString(),
                folder,
              })}
        </p>
      </div>
      {isOpen ? <span className="px-3 text-small">{t("open now")}</span> : <Button onClick={onOpen}>{t("Open")}</Button>}
      <Button look="quiet" once onClick={() => inBackground(duplicateProject(row.id))}>
        {t("Duplicate")}
      </Button>
      {!isOpen && (
        <Button look="quiet" onClick={remove}>
          {t("Remove")}
        </Button>
      )}
    </li>
  );
}

function rename(id: string, name: string): string | undefined {
  if (name.trim() === "") return t("A name needs at least one character.");
  inBackground(renameStored(id, name.trim()));
  return undefined;
}
