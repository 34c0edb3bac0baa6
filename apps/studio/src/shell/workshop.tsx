"use client";

import { whyOf } from "@caravan/core/model";
import { Tooltip } from "radix-ui";
import { Suspense, useEffect, useState } from "react";
import { keepOffline } from "../offline/keep-offline";
import { startAutosave } from "../project/autosave";
import { useChangedArt } from "../project/changed-art/reviewing";
import { serveGames } from "../project/delivering/for-the-crossing";
import { followRenames, loadOutlets } from "../project/delivering/game-folder";
import { startLooking } from "../project/findings";
import { useHome } from "../project/home/home-state";
import { ART_FILES, takeInAndGo } from "../project/import-later";
import { takeInDrop, takeInEarlyDrops } from "../project/importing/early-drops";
import { useFilm } from "../project/importing/film";
import { useReview } from "../project/importing/review";
import { takeInLaunched } from "../project/launched";
import { useLeaving } from "../project/leaving";
import { canLinkFolders } from "../project/linked/folder";
import { watchLinkedFolder } from "../project/linked/watch";
import { useOpenProject } from "../project/open-project";
import { openingEnded } from "../project/opening";
import { firstPictures } from "../project/pictures";
import { listenToTabs, rememberPlace } from "../project/projects";
import { NoStorage } from "../project/storage";
import { sweepLeft } from "../project/sweep";
import { go, STOPS, useView } from "../project/view";
import { Boundary } from "../ui/boundary";
import { chooseFiles } from "../ui/files";
import { inBackground } from "../ui/in-background";
import { useKeyListener, useKeys } from "../ui/keys";
import { sayTrouble } from "../ui/notices";
import { useStrayPresses } from "../ui/stray-presses";
import { t } from "../ui/words";
import { Banners } from "./banners";
import { deliverAgainNow, FINDER_LABEL, keepInFolderNow, openFolderNow, redoNow, saveAsFile, undoNow } from "./commands";
import { endFirstView, shown } from "./first-view/until-shown";
import { FirstVisit } from "./first-visit";
import { Floor } from "./floor";
import { ArrivalLine } from "./import-review/import-progress";
import {
  ArrivalReview,
  ChangedArtReview,
  FilmDialog,
  Finder,
  KeysPanel,
  LeavingDialog,
  loadAllParts,
  OutsideDialog,
  ProjectsDialog,
} from "./later-parts";
import { NewerVersion } from "./newer-version";
import { moveFocus } from "./regions";
import { Road } from "./road";
import { StartFailed, start } from "./start";
import { STOP_PARTS } from "./stops";
import { type Problem, Stuck } from "./stuck";

/** The whole screen: the road on top, list, surface and player below it, a word of help at the foot. */
export function Workshop() {
  const opening = useOpening();
  const [dialog, setDialog] = useState<"keys" | "projects" | "finder" | null>(null);
  const open = useOpenProject((state) => state.id !== null);
  useKeyListener();
  useStrayPresses();
  useKeys(
    t("Everywhere"),
    [
      ...STOPS.map((stop, k) => ({
        keys: String(k + 1),
        label: t("Go to {title}", { title: STOP_PARTS[stop].title }),
        run: () => go(stop),
      })),
      { keys: "Mod+z", repeats: true, label: t("Undo"), run: undoNow },
      { keys: "Mod+Shift+z Mod+y", repeats: true, label: t("Redo"), run: redoNow },
      { keys: "Mod+s", label: t("Save the project to a file"), run: () => inBackground(saveAsFile()), whileTyping: true },
      { keys: "Mod+o", label: t("Add pictures or open a file"), run: () => inBackground(chooseFiles(ART_FILES, true).then(takeInAndGo)) },
      ...(canLinkFolders()
        ? [
            { keys: "Mod+Shift+o", label: t("Open a project's folder"), run: () => inBackground(openFolderNow()) },
            { keys: "Mod+Shift+s", label: t("Keep this project in a folder"), run: () => inBackground(keepInFolderNow()) },
          ]
        : []),
      {
        keys: "Shift+d",
        label: t("Deliver again, into the game's folders and The Crossing"),
        run: () => inBackground(deliverAgainNow()),
      },
      { keys: "p", label: t("All projects"), run: () => setDialog("projects") },
      { keys: "Mod+k", label: FINDER_LABEL, run: () => setDialog("finder"), whileTyping: true },
      { keys: "F6", label: t("Next part of the screen"), run: () => moveFocus(1), whileTyping: true },
      { keys: "Shift+F6", label: t("Previous part of the screen"), run: () => moveFocus(-1), whileTyping: true },
      { keys: "?", label: t("List of keys"), run: () => setDialog("keys") },
    ],
    { scope: "everywhere" },
  );
  useOutletsOf(useOpenProject((state) => state.id));
  const dropping = useFileDrop();

  // A file dropped here opens a project too.
  if (opening.problem && !open)
    return (
      <Tooltip.Provider>
        <Stuck problem={opening.problem} onOpen={opening.solved} />
      </Tooltip.Provider>
    );
  if (!open) return <p className="p-8 text-muted">{t("Opening …")}</p>;
  return (
    <Tooltip.Provider delayDuration={500} skipDelayDuration={200}>
      <div className="flex h-full flex-col">
        <Road onFind={() => setDialog("finder")} onKeys={() => setDialog("keys")} onProjects={() => setDialog("projects")} />
        <Banners />
        <NewerVersion />
        <FirstVisit />
        <ArrivalLine />
        <Floor />
        <Boundary name={t("Import review")}>
          <Questions />
        </Boundary>
        <Boundary key={dialog} name={t("This dialog")}>
          <Suspense fallback={null}>
            {dialog === "finder" && <Finder onClose={() => setDialog(null)} />}
            {dialog === "keys" && <KeysPanel onClose={() => setDialog(null)} />}
            {dialog === "projects" && <ProjectsDialog onClose={() => setDialog(null)} />}
          </Suspense>
        </Boundary>
        {dropping && (
          <div className="pointer-events-none fixed inset-3 z-50 flex items-center justify-center rounded-box border-4 border-dashed border-now bg-[rgb(20_16_10/0.35)]">
            <p className="rounded-box bg-raised px-6 py-4 text-title font-bold">{t("Drop to import")}</p>
          </div>
        )}
      </div>
    </Tooltip.Provider>
  );
}

/** What waits for a person's word, each shown while there is something to ask. */
function Questions() {
  const offered = useReview((state) => state.proposals !== null);
  const film = useFilm((state) => state.film !== null);
  const changed = useChangedArt((state) => state.art !== null);
  const leaving = useLeaving((state) => state.question !== null);
  const outside = useHome((state) => state.reviewing && state.home?.state.kind === "changed");
  return (
    <Suspense fallback={null}>
      {offered && <ArrivalReview />}
      {film && <FilmDialog />}
      {changed && <ChangedArtReview />}
      {leaving && <LeavingDialog />}
      {outside && <OutsideDialog onClose={() => useHome.setState({ reviewing: false })} />}
    </Suspense>
  );
}

/** Opens the project once, saves automatically, listens to other tabs, and keeps place and address up to date. */
function useOpening(): { problem: Problem | null; solved: () => void } {
  const [problem, setProblem] = useState<Problem | null>(null);
  useEffect(() => {
    const stopSaving = startAutosave();
    const stopListening = listenToTabs();
    const stopWatching = watchLinkedFolder();
    start()
      .catch((error: unknown) => {
        const text = whyOf(error);
        endFirstView();
        setProblem({ text, id: error instanceof StartFailed ? error.id : null, stores: !(error instanceof NoStorage) });
      })
      .finally(openingEnded);
    return () => {
      stopSaving();
      stopListening();
      stopWatching();
    };
  }, []);
  const id = useOpenProject((state) => state.id);
  const stop = useView((view) => view.stop);
  const source = useView((view) => view.sourceId);
  const clip = useView((view) => view.clipName);
  useEffect(() => {
    if (id === null) return;
    history.replaceState(history.state, "", `?project=${id}`);
    inBackground(rememberPlace({ stop, source, clip }));
  }, [id, stop, source, clip]);
  return { problem, solved: () => setProblem(null) };
}

/** Imports files and folders dropped anywhere on the page, and pasted ones. True while some are dragged over it. */
function useFileDrop(): boolean {
  const [over, setOver] = useState(false);
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes("Files") ?? false;
    // Elsewhere than in a field a browser would leave the page for it.
    const isStrayLink = ({ dataTransfer, target }: DragEvent) =>
      dataTransfer?.types.includes("text/uri-list") === true &&
      !(target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement);
    const drag = (event: DragEvent) => {
      if (hasFiles(event)) setOver(true);
      else if (!isStrayLink(event)) return;
      event.preventDefault();
    };
    const leave = (event: DragEvent) => event.relatedTarget === null && setOver(false);
    const drop = (event: DragEvent) => {
      if (!hasFiles(event)) {
        if (!isStrayLink(event)) return;
        event.preventDefault();
        sayTrouble(t("What you dropped is a link, and Caravan loads nothing from the web. Save the picture, then drop its file."));
        return;
      }
      event.preventDefault();
      setOver(false);
      // Some parts of the screen have a use of their own for files.
      if (event.target instanceof Element && event.target.closest("[data-takes-files]")) return;
      if (event.dataTransfer) inBackground(takeInDrop(event.dataTransfer));
    };
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      inBackground(takeInAndGo(files));
    };
    addEventListener("paste", paste);
    addEventListener("dragover", drag);
    addEventListener("dragleave", leave);
    addEventListener("drop", drop);
    inBackground(takeInEarlyDrops());
    return () => {
      removeEventListener("paste", paste);
      removeEventListener("dragover", drag);
      removeEventListener("dragleave", leave);
      removeEventListener("drop", drop);
    };
  }, []);
  return over;
}

/** Reports uncaught errors too, until the returned function is called. */
function sayUnhandled(): () => void {
  const hear = ({ reason }: PromiseRejectionEvent) => sayTrouble(reason);
  addEventListener("unhandledrejection", hear);
  return () => removeEventListener("unhandledrejection", hear);
}

/** Files that the page was opened with go to the project open at that time. */
function takeLaunched(isOpen: boolean): void {
  if (isOpen) takeInLaunched();
}

/** What the browser's own clock calls the moment at which the first pictures are drawn; the budget of the first load counts up to it. */
const FIRST_PICTURES = "caravan: first pictures";

/** How long the first pictures are waited for, in ms: an empty project has none. */
const PATIENCE = 1500;

/** Once a project and its first pictures are shown, searches for findings and loads rarely shown code. */
function loadLater(isOpen: boolean): (() => void) | undefined {
  if (!isOpen) return;
  let ended = false;
  let stopHome = () => {};
  const load = () => {
    if (ended) return;
    inBackground(
      import("../project/home/home").then(({ watchHome }) => {
        if (!ended) stopHome = watchHome();
      }),
    );
    startLooking();
    inBackground(loadAllParts());
    inBackground(sweepLeft());
  };
  const whenIdle = () => (typeof requestIdleCallback === "undefined" ? setTimeout(load) : requestIdleCallback(load, { timeout: 2000 }));
  const whenDrawn = () => {
    performance.mark(FIRST_PICTURES);
    shown();
    whenIdle();
  };
  const { Surface } = STOP_PARTS[useView.getState().stop];
  const pictures = () => firstPictures(PATIENCE);
  // Two display pictures on, they are drawn. Code that did not come is reported in its place.
  inBackground(
    Surface.load()
      .then(pictures, pictures)
      .then(() => requestAnimationFrame(() => requestAnimationFrame(whenDrawn))),
  );
  return () => {
    ended = true;
    stopHome();
  };
}

/** Tracks the game folders of the open project. */
function useOutletsOf(project: string | null): void {
  // biome-ignore lint/correctness/useExhaustiveDependencies: another project has other folders
  useEffect(() => inBackground(loadOutlets()), [project]);
  useEffect(serveGames, []);
  useEffect(followRenames, []);
  useEffect(sayUnhandled, []);
  const isOpen = project !== null;
  useEffect(() => loadLater(isOpen), [isOpen]);
  useEffect(() => takeLaunched(isOpen), [isOpen]);
  useEffect(keepOffline, []);
}
