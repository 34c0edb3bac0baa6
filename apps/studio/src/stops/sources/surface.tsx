"use client";

import { isOfPieces } from "@caravan/core/model";
import { Plus } from "lucide-react";
import { useEffect, useState } from "react";
import { ART_FILES, takeInAndGo } from "../../project/import-later";
import { useFailedFiles } from "../../project/importing/read-files";
import { canLinkFolders } from "../../project/linked/folder";
import { linkFolder } from "../../project/linked/linked-folder";
import { useProject } from "../../project/open-project";
import { chooseSource, chosenSource, go, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { EmptyPanel } from "../../ui/empty-panel";
import { chooseFiles, chooseFolder } from "../../ui/files";
import { inBackground } from "../../ui/in-background";
import { useKeys } from "../../ui/keys";
import { useIsWide } from "../../ui/wide";
import { WithMenu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { LinkedFolderLine } from "./linked-folder-line";
import { SourceCard } from "./source-card";
import { sourceMenu } from "./source-menu";
import { Treatment } from "./treatment";

/** A wall of no more sources is filled at once. */
const MOST_FILLED = 60;

/** The wall of imported pictures. */
export function Surface() {
  const project = useProject((each) => each);
  const source = useView((view) => chosenSource(project, view));
  const chosen = source?.id ?? null;
  const isWide = useIsWide();
  const { sources } = project;
  // Asked after the first drawing: the server cannot know.
  const [canLink, setCanLink] = useState(false);
  useEffect(() => setCanLink(canLinkFolders()), []);
  const add = async () => takeInAndGo(await chooseFiles(ART_FILES, true));
  const addFolder = async () => takeInAndGo(await chooseFolder());
  const neighbour = (by: number) => {
    const at = sources.findIndex((source) => source.id === chosen);
    const next = sources[Math.max(0, Math.min(sources.length - 1, at + by))];
    if (!next) return;
    chooseSource(next.id);
    document.querySelector(`[data-source="${next.id}"]`)?.scrollIntoView({ block: "nearest" });
  };
  useKeys(t("Sources"), [
    { keys: "a", label: t("Add pictures"), run: () => inBackground(add()) },
    { keys: "Shift+a", label: t("Add a whole folder"), run: () => inBackground(addFolder()) },
    ...(canLink ? [{ keys: "l", label: t("Link the folder that the art comes from"), run: () => inBackground(linkFolder()) }] : []),
    { keys: "ArrowRight ArrowDown", repeats: true, label: t("Next picture"), run: () => neighbour(1) },
    { keys: "ArrowLeft ArrowUp", repeats: true, label: t("Previous picture"), run: () => neighbour(-1) },
    { keys: "Enter", label: t("Cut the chosen sheet"), run: () => chosen && go("frames") },
  ]);
  return (
    <>
      <header className="flex items-center justify-between gap-3">
        <h2 className="text-title font-bold">{t("Sources")}</h2>
        <div className="flex flex-wrap justify-end gap-2">
          {canLink && <Button onClick={() => inBackground(linkFolder())}>{t("Link a folder")}</Button>}
          <Button onClick={() => inBackground(addFolder())}>{t("Add a folder")}</Button>
          <Button look={sources.length === 0 ? "now" : "plain"} onClick={() => inBackground(add())} hint="A">
            <Plus size={15} /> {t("Add pictures")}
          </Button>
        </div>
      </header>
      <FailedFiles />
      <LinkedFolderLine />
      {sources.length === 0 ? (
        <Empty />
      ) : (
        <div className="flex min-h-0 grow gap-3">
          <WithMenu label={t("Source menu")} menuOf={sourceMenu}>
            <ul
              aria-label={t("Pictures")}
              className="grid min-h-0 grow auto-rows-min grid-cols-[repeat(auto-fill,minmax(13.125rem,1fr))] gap-3 overflow-y-auto pb-2"
            >
              {sources.map((source) => (
                <SourceCard key={source.id} source={source} chosen={source.id === chosen} long={sources.length > MOST_FILLED} />
              ))}
            </ul>
          </WithMenu>
          {isWide && source && !isOfPieces(source) && (
            <section
              aria-label={t("What is done to the art")}
              tabIndex={0}
              className="scrolls w-76 shrink-0 min-[93.75em]:w-88 rounded-box border border-line [--behind:var(--surface)]"
            >
              <h3 className="px-3.5 pt-3 text-strong font-bold">{source.name}</h3>
              <Treatment source={source} />
            </section>
          )}
        </div>
      )}
    </>
  );
}

/** Files that did not go in, each with its reason, until they are dismissed or tried again. */
function FailedFiles() {
  const failed = useFailedFiles((state) => state.failed);
  if (failed.length === 0) return null;
  const clear = () => useFailedFiles.setState({ failed: [] });
  const retry = () => {
    clear();
    inBackground(takeInAndGo(failed.map(({ file }) => file)));
  };
  return (
    <section
      aria-label={t("Files that were not imported")}
      role="alert"
      className="rounded-box border border-l-4 border-line border-l-brick bg-raised p-3"
    >
      <h3 className="font-bold text-brick">
        {failed.length === 1 ? t("One file was not imported") : t("{count} files were not imported", { count: failed.length })}
      </h3>
      <ul className="my-1 max-h-32 overflow-y-auto">
        {failed.map(({ file, error }) => (
          <li key={`${file.name} ${file.lastModified} ${file.size}`}>
            <strong>{error.where}</strong>: {error.what} {error.remedy}
          </li>
        ))}
      </ul>
      <div className="flex gap-2">
        <Button onClick={retry}>{t("Try again")}</Button>
        <Button look="quiet" onClick={clear}>
          {t("Dismiss")}
        </Button>
      </div>
    </section>
  );
}

function Empty() {
  return (
    <EmptyPanel title={t("Drop your sprite sheets here")}>
      {t(
        "Pictures, numbered stills, animations, layered art, sheets with a metadata file: files, whole folders or a ZIP, dropped or pasted. They stay in this browser. Next you cut them at Frames; the player at the right moves as soon as they are.",
      )}
    </EmptyPanel>
  );
}
