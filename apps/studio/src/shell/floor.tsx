"use client";

import { PanelLeft, PanelRight, X } from "lucide-react";
import { type ReactNode, Suspense, useDeferredValue, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { Group, Panel, Separator, useDefaultLayout } from "react-resizable-panels";
import { PlayerDock } from "../preview/player-dock";
import { usePlayer } from "../preview/player-state";
import { useProject } from "../project/open-project";
import { type Stop, useView } from "../project/view";
import { Boundary } from "../ui/boundary";
import { Button, IconButton } from "../ui/button";
import { chordInWords, giveHeldKeys, holdKeysWhile, useKeys } from "../ui/keys";
import { Later } from "../ui/later";
import { useMedia } from "../ui/media";
import { NoticeList } from "../ui/notice-list";
import { remember, remembered } from "../ui/remembered";
import { t } from "../ui/words";
import { STOP_PARTS, type StopParts } from "./stops";

/**
 * Below this width the list becomes a drawer, and below the other one the player too: the surface needs the room. In em, here and in all
 * media queries, so that a larger font set in the browser counts as less room, as zoom does.
 */
const LIST_IS_DRAWER = "(max-width: 68.6875em)";
const DOCK_IS_DRAWER = "(max-width: 49.9375em)";

/** On a short screen nothing is squeezed: flexible elements get a height, and the surface scrolls. */
const SURFACE =
  "flex h-full min-w-0 flex-col gap-2.5 p-3.5 [@media(max-height:40em)]:overflow-y-auto [@media(max-height:40em)]:[&>*]:shrink-0 [@media(max-height:40em)]:[&>.grow]:min-h-72";

const LAYOUTS = { getItem: remembered, setItem: remember };

/** List, surface and player of the current stop, side by side if there is room, with a line of help at the bottom. */
export function Floor() {
  const stop = useShownStop();
  const { title, List, Surface } = STOP_PARTS[stop];
  const listIsDrawer = useMedia(LIST_IS_DRAWER);
  const dockIsDrawer = useMedia(DOCK_IS_DRAWER);
  const [drawer, setDrawer] = useState<"list" | "dock" | null>(null);
  const surface = useRef<HTMLElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each stop begins at its top
  useLayoutEffect(() => {
    if (surface.current) surface.current.scrollTop = 0;
  }, [stop]);
  const panelIds = [...(listIsDrawer ? [] : ["list"]), "surface", ...(dockIsDrawer ? [] : ["dock"])];
  const layout = useDefaultLayout({ id: "caravan-floor", panelIds, storage: LAYOUTS });
  const list = (
    <section data-region="list" tabIndex={-1} aria-label={t("{title}: list", { title })} className="scrolls h-full p-2.5">
      <Suspense fallback={null}>
        <Boundary key={stop} name={t("{title}: list", { title })}>
          <List />
        </Boundary>
      </Suspense>
    </section>
  );
  const toggle = (which: "list" | "dock") => setDrawer((open) => (open === which ? null : which));
  useKeys(t("Drawers"), [
    ...(listIsDrawer ? [{ keys: "Alt+l", label: t("The list, in its drawer"), run: () => toggle("list") }] : []),
    ...(dockIsDrawer ? [{ keys: "Alt+p", label: t("The player, in its drawer"), run: () => toggle("dock") }] : []),
  ]);
  return (
    <>
      <main className="relative min-h-0 grow">
        <Group key={panelIds.join()} orientation="horizontal" className="h-full" {...layout}>
          {!listIsDrawer && (
            <>
              <Panel id="list" defaultSize="12.75rem" minSize="9.375rem" maxSize="22.5rem" groupResizeBehavior="preserve-pixel-size">
                {list}
              </Panel>
              <Handle label={t("Width of the list")} />
            </>
          )}
          <Panel id="surface" minSize="45%">
            <section ref={surface} data-region="surface" tabIndex={-1} aria-label={title} className={SURFACE}>
              <Suspense fallback={null}>
                <Boundary key={stop} name={title}>
                  <Surface />
                </Boundary>
                <Arrived key={`arrived ${stop}`} stop={stop} />
              </Suspense>
            </section>
          </Panel>
          {!dockIsDrawer && (
            <>
              <Handle label={t("Width of the player")} />
              <Panel id="dock" defaultSize="19rem" minSize="16.875rem" maxSize="30rem" groupResizeBehavior="preserve-pixel-size">
                <Dock stop={stop} notices />
              </Panel>
            </>
          )}
        </Group>
        {listIsDrawer && drawer === "list" && (
          <Drawer side="left" onClose={() => setDrawer(null)}>
            {list}
          </Drawer>
        )}
        {dockIsDrawer && drawer === "dock" && (
          <Drawer side="right" onClose={() => setDrawer(null)}>
            <Dock stop={stop} notices={false} />
          </Drawer>
        )}
      </main>
      {dockIsDrawer && <NoticeList />}
      <footer
        className={`flex shrink-0 items-center justify-between gap-4 border-t border-line text-small text-muted ${listIsDrawer ? "py-1 pr-3.5 pl-1" : "h-6.5 px-3.5"}`}
      >
        {listIsDrawer && (
          <Button onClick={() => toggle("list")} aria-expanded={drawer === "list"} className="shrink-0">
            <PanelLeft size={14} /> {t("List")}
          </Button>
        )}
        <Help stop={stop} />
        {dockIsDrawer ? (
          <Button onClick={() => toggle("dock")} aria-expanded={drawer === "dock"} className="-mr-2.5 shrink-0">
            <PanelRight size={14} /> {STOP_PARTS[stop].playing ? t("Player") : t("Details")}
          </Button>
        ) : (
          <p className="shrink-0">{t("{chord} undoes anything", { chord: chordInWords("Mod+z") })}</p>
        )}
      </footer>
    </>
  );
}

/** The player, and below it the details of the selection, which scroll, so that motion is always visible. */
function Dock({ stop, notices }: { stop: Stop; notices: boolean }) {
  const { title, Details, playing } = STOP_PARTS[stop];
  return (
    <section aria-label={playing ? t("Player and details") : t("Details")} className="flex h-full flex-col">
      {playing && <DockedPlayer playingAt={playing} />}
      {/* Of another stop it begins at the top again. In a drawer as low as the player, it keeps some height, and the drawer scrolls. */}
      <div key={stop} data-region="details" tabIndex={-1} className={`scrolls grow ${notices ? "min-h-0" : "min-h-60 shrink-0"}`}>
        <Later>
          <Suspense fallback={null}>
            <Boundary name={t("{title}: details", { title })}>
              <Details />
            </Boundary>
          </Suspense>
        </Later>
      </div>
      {notices && <NoticeList />}
    </section>
  );
}

/** The player with the current work. Separate from the details, which do not change when the pointer moves over another row. */
function DockedPlayer({ playingAt }: { playingAt: NonNullable<StopParts["playing"]> }) {
  const view = useView();
  const project = useProject((each) => each);
  const facing = usePlayer((state) => state.facing);
  const onlyChosen = usePlayer((state) => state.onlyChosen);
  const playing = useMemo(() => playingAt(project, view, { facing, onlyChosen }), [playingAt, project, view, facing, onlyChosen]);
  return (
    <div data-region="player" tabIndex={-1} className="shrink-0">
      <Boundary name={t("The player")}>
        <PlayerDock playing={playing} />
      </Boundary>
    </div>
  );
}

/** A column over the surface while it is open. Escape closes it. */
function Drawer({ side, onClose, children }: { side: "left" | "right"; onClose: () => void; children: ReactNode }) {
  useKeys(t("The drawer"), [{ keys: "Escape", label: t("Close the drawer"), run: onClose, whileTyping: true }], { scope: "layer" });
  return (
    <div
      className={`absolute inset-y-0 z-30 flex w-[min(19rem,88%)] flex-col bg-paper shadow-xl ${side === "left" ? "left-0 border-r" : "right-0 border-l"} border-line-strong`}
    >
      <div className="flex justify-end p-1">
        <IconButton label={t("Close the drawer")} look="quiet" onClick={onClose}>
          <X size={15} />
        </IconButton>
      </div>
      <div className="scrolls min-h-0 grow">{children}</div>
    </div>
  );
}

/** The current stop. Rendering another takes a moment, so it happens in pieces that do not block; keys pressed meanwhile wait for it. */
function useShownStop(): Stop {
  const wanted = useView((view) => view.stop);
  const shown = useDeferredValue(wanted);
  const current = useRef(shown);
  useEffect(() => holdKeysWhile(() => useView.getState().stop !== current.current || arrivedAt !== current.current), []);
  useEffect(() => {
    current.current = shown;
    giveHeldKeys();
  }, [shown]);
  return shown;
}

/** The stop whose surface is there, or says why it is not: until then its keys wait for it. */
let arrivedAt: Stop | null = null;

/** Beside a surface, mounted with it. */
function Arrived({ stop }: { stop: Stop }) {
  useEffect(() => {
    arrivedAt = stop;
    giveHeldKeys();
  }, [stop]);
  return null;
}

/** The border between two columns, with a visible grip in its middle. */
function Handle({ label }: { label: string }) {
  return (
    <Separator
      aria-label={label}
      className="relative w-px bg-line transition-colors after:absolute after:top-1/2 after:left-1/2 after:z-10 after:h-9 after:w-1.5 after:-translate-1/2 after:rounded-full after:bg-line-strong hover:bg-lapis hover:after:bg-lapis focus-visible:bg-lapis focus-visible:after:bg-lapis"
    />
  );
}

function Help({ stop }: { stop: Stop }) {
  const project = useProject((each) => each);
  const { help } = STOP_PARTS[stop];
  const text = useView((view) => (typeof help === "string" ? help : help(project, view)));
  return <p className="min-w-0 grow truncate">{text}</p>;
}
