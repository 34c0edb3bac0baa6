/**
 * Manages the browser's copy of the studio: made on the first visit, updated when the server has a newer build, switched over when a
 * person says so.
 */

import { create } from "zustand";
import { isSaved, saveNow } from "../project/autosave";
import { type OpenProject, useOpenProject } from "../project/open-project";
import { firstPictures } from "../project/pictures";
import { inBackground } from "../ui/in-background";
import { say } from "../ui/notices";
import { t } from "../ui/words";

/** A newer build that is kept already and waits. */
export const useNewer = create<{ readonly waiting: ServiceWorker | null; readonly taking: boolean }>(() => ({
  waiting: null,
  taking: false,
}));

/** How long the copy waits for the first pictures, in ms: it takes all of the studio's files, and would share the line with them. */
const PATIENCE = 5000;

/**
 * How long the newer build has to take charge of this page, in ms. Chromium sometimes (measured: 1 in 30 times) does not end the former
 * service worker while the page stays, nor after it was loaded again, whatever either is sent.
 */
const HANDOVER = 3000;

/** Keeps a copy, and hears of newer builds, until the returned function is called. Browsers that keep none are left as they are. */
export function keepOffline(): () => void {
  const { serviceWorker } = navigator;
  // Absent where the page came over an unsafe connection.
  if (!serviceWorker) return () => {};
  // Development builds are never cached.
  if (process.env.NODE_ENV === "development") {
    void serviceWorker.getRegistrations().then((all) => all.map((each) => each.unregister()));
    return () => {};
  }
  let kept: ServiceWorkerRegistration | null = null;
  let ended = false;
  // A user who returns to a tab after days learns about a newer version. Offline there is nothing to learn.
  const lookAgain = () => void (document.visibilityState === "visible" && kept?.update().catch(() => {}));
  document.addEventListener("visibilitychange", lookAgain);
  const register = () => {
    if (ended) return;
    serviceWorker.register("/sw.js").then(
      // Undefined where service workers are blocked.
      (registration: ServiceWorkerRegistration | undefined) => {
        kept = registration ?? null;
        if (registration) follow(registration);
      },
      // No copy is kept where the browser has no room or leave for it; the studio works with its server all the same.
      () => {},
    );
  };
  inBackground(
    untilShown().then(
      () => void (typeof requestIdleCallback === "undefined" ? register() : requestIdleCallback(register, { timeout: 2000 })),
    ),
  );
  return () => {
    ended = true;
    document.removeEventListener("visibilitychange", lookAgain);
  };
}

/** Until the first pictures are there, or a project is open that has none. */
function untilShown(): Promise<void> {
  let stop = () => {};
  const empty = new Promise<void>((resolve) => {
    const look = ({ id, project }: OpenProject) => id !== null && project.sources.length === 0 && resolve();
    stop = useOpenProject.subscribe(look);
    look(useOpenProject.getState());
  });
  return Promise.race([empty, firstPictures(PATIENCE)]).finally(() => stop());
}

function follow(registration: ServiceWorkerRegistration): void {
  const announce = () => {
    const { waiting } = registration;
    // The first copy is not newer than anything.
    if (waiting && navigator.serviceWorker.controller) useNewer.setState({ waiting });
  };
  const watch = () => registration.installing?.addEventListener("statechange", announce);
  announce();
  // Opening the page makes the browser look for a newer build by itself, which may have begun already.
  watch();
  registration.addEventListener("updatefound", watch);
}

/** Saves the work, activates the newer build and reloads the page. If saving fails, changes nothing and shows an error. */
export async function takeNewer(): Promise<void> {
  const { waiting, taking } = useNewer.getState();
  if (!waiting || taking) return;
  useNewer.setState({ taking: true });
  try {
    if (!(await savedFirst())) return;
    if (!(await inCharge(waiting))) await dropFormer();
    // Work went on meanwhile.
    if (await savedFirst()) location.reload();
  } finally {
    useNewer.setState({ taking: false });
  }
}

/** Waits until the newer build is in charge of this page, but at most for `HANDOVER`; whether it is. */
async function inCharge(newer: ServiceWorker): Promise<boolean> {
  // It may be already: another tab took it, or this page was about to go and stayed.
  if (newer.state !== "installed") return true;
  const changed = new Promise<true>((resolve) =>
    navigator.serviceWorker.addEventListener("controllerchange", () => resolve(true), { once: true }),
  );
  newer.postMessage("take over");
  return Promise.race([changed, new Promise<false>((resolve) => setTimeout(() => resolve(false), HANDOVER))]);
}

/**
 * Makes the next load come from the server, which has the newer build and lets it be kept anew; its files that are kept already are not
 * asked for again. Without the server the former build stays, and announces the newer one again.
 */
async function dropFormer(): Promise<void> {
  try {
    // A page that is fetched, not navigated to, comes from the server (`how-served.ts`).
    const { ok } = await fetch("/", { cache: "no-store", signal: AbortSignal.timeout(HANDOVER) });
    if (ok) await (await navigator.serviceWorker.getRegistration())?.unregister();
  } catch {
    // No server.
  }
}

async function savedFirst(): Promise<boolean> {
  await saveNow();
  if (isSaved()) return true;
  say({ tone: "trouble", text: t("The project could not be saved, so the newer version waits. Save it to a file first.") });
  return false;
}
