"use client";

import { wornLook } from "@caravan/core/art";
import { angleOf, facingToward } from "@caravan/core/facing";
import { hostClips } from "@caravan/core/marks";
import { type FramePoint, findFrame, framesOfClips, type Going, type Micros, type Stage } from "@caravan/core/model";
import { Maximize2, Minimize2 } from "lucide-react";
import { type MouseEvent, type PointerEvent, useEffect, useRef } from "react";
import { create } from "zustand";
import { looksOfStill, stillOf } from "../../preview/draw-frame";
import { useHiddenLayers } from "../../preview/hidden-layers";
import { loadPictures, usePictures } from "../../project/pictures";
import { IconButton } from "../../ui/button";
import { useElementSize } from "../../ui/element-size";
import { useKeys } from "../../ui/keys";
import { onThemeChange } from "../../ui/theme-now";
import { t } from "../../ui/words";
import { useDrawing, useDrawnArea, useMovedThings } from "./drawing";
import { stageWith } from "./grab";
import { controlOf, nameOfControl, printedOn } from "./keys-of-stage";
import { type Aids, framesOfStage, paintMoment, type StageInks } from "./paint-stage";
import { control, lookThere, rehearsalAt, type Session, shownTime, useSession } from "./session";
import { worldPoint } from "./world-point";

interface StageLook extends Omit<Aids, "chosen" | "events"> {
  readonly whole: boolean;
  /** Whether events are shown over the figure, and whether they click. */
  readonly events: boolean;
  readonly clicks: boolean;
}

export const useStageLook = create<StageLook>(() => ({
  marks: false,
  origin: false,
  zones: true,
  whole: false,
  events: true,
  clicks: false,
}));

/** So long an event stays over the figure. */
const FLASH = 250_000; // µs

const STAGE_ID = "rehearsal-stage";

/** Gives the stage the keys: Space is for the figure then, not for the button that was clicked last. */
export function focusStage(): void {
  document.getElementById(STAGE_ID)?.focus({ preventScroll: true });
}

/** After a click beside the stage the arrow keys drive the figure again; keyboard users keep their focus. */
export function giveKeysBack({ detail }: MouseEvent): void {
  const held = document.activeElement;
  if (detail > 0 && held?.matches("button") && !held.matches(":focus-visible")) focusStage();
}

export function toggleWholeStage(): void {
  focusStage();
  useStageLook.setState(({ whole }) => ({ whole: !whole }));
}

/** The largest whole-number zoom at which the game's window fits, or a half where none does. In device pixels. */
function zoomFor(stage: Stage, width: number, height: number): number {
  const fits = Math.min(width / stage.size.w, height / stage.size.h);
  return fits >= 1 ? Math.floor(fits) : 0.5;
}

/** The stage in game size at a whole-number zoom. */
export function StageView({ stage }: { stage: Stage }) {
  const room = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(room);
  const look = useStageLook();
  const { width, height, density } = size;
  const zoom = zoomFor(stage, width * density, height * density);
  usePainting(canvas, zoom);
  useClicks();
  useEffect(() => {
    // A user who came by the road drives at once; one who is busy elsewhere here is left alone.
    const { activeElement } = document;
    if (activeElement === document.body || activeElement?.closest('[data-region="road"]')) focusStage();
  }, []);
  const walking = useWalking(canvas, stage, zoom / density);
  const drawing = useDrawnArea(canvas, stage, zoom / density);
  const arranging = useMovedThings(canvas, stage, zoom / density);
  const armed = useDrawing((state) => (state.drawing !== null ? "drawing" : state.moving ? "moving" : null));
  return (
    <div
      className={
        look.whole
          ? "fixed inset-0 z-40 flex flex-col bg-[#14100a]"
          : "relative flex min-h-48 grow flex-col overflow-hidden rounded-box border border-line bg-[#14100a]"
      }
    >
      {look.whole && <WholeKeys />}
      {armed && <ArmedKeys />}
      <div ref={room} className="relative flex min-h-0 grow items-center justify-center overflow-hidden">
        <canvas
          ref={canvas}
          id={STAGE_ID}
          data-testid="rehearsal"
          tabIndex={0}
          role="img"
          aria-label={t("The stage")}
          aria-describedby="rehearsal-reading"
          width={Math.round(stage.size.w * zoom)}
          height={Math.round(stage.size.h * zoom)}
          className={`block shrink-0 touch-none ${armed === "drawing" ? "cursor-crosshair" : armed ? "cursor-move" : ""}`}
          style={{ width: (stage.size.w * zoom) / density, height: (stage.size.h * zoom) / density }}
          {...(armed === "drawing" ? drawing : armed ? arranging : walking)}
        />
        <HeldKeys stage={stage} />
        <div className="absolute top-2 right-2 flex items-center gap-1.5">
          <span className="number rounded-box bg-[rgb(20_16_10/0.75)] px-2 py-1 text-small text-[#e9dfcb]">
            {stage.size.w} × {stage.size.h} · {Number((zoom / density).toFixed(2))}×
          </span>
          <IconButton label={look.whole ? t("Back to the studio") : t("Fill the window")} aria-keyshortcuts="z" onClick={toggleWholeStage}>
            {look.whole ? <Minimize2 size={14} /> : <Maximize2 size={14} />}
          </IconButton>
        </div>
      </div>
    </div>
  );
}

function WholeKeys() {
  useKeys(t("The whole window"), [{ keys: "Escape", label: t("Back to the studio"), run: toggleWholeStage }], { scope: "layer" });
  return null;
}

function ArmedKeys() {
  const end = () => useDrawing.setState({ drawing: null, moving: false, held: null });
  useKeys(t("Drawing and moving"), [{ keys: "Escape", label: t("End it"), run: end }], { scope: "surface" });
  return null;
}

/** Paints whenever something that is seen has changed. */
function usePainting(canvas: React.RefObject<HTMLCanvasElement | null>, zoom: number): void {
  const setting = useSession((session) => session.setting);
  const look = useStageLook();
  const chosen = useDrawing((state) => state.chosen);
  const held = useDrawing((state) => state.held);
  useEffect(() => {
    if (!setting) return;
    const { project } = setting;
    loadPictures(
      [...framesOfStage(setting), ...framesOfClips((project.parts ?? []).flatMap(({ guest }) => hostClips(project, guest)))].flatMap(
        (ref) => {
          const found = findFrame(project, ref);
          return found ? looksOfStill(stillOf(project, found.source, found.frame)) : [];
        },
      ),
    );
    const { backdrop } = setting.stage;
    const source = typeof backdrop === "object" ? project.sources.find(({ id }) => id === backdrop.source) : undefined;
    if (source?.pictures[0]) loadPictures([wornLook(project, source)]);
  }, [setting]);
  useEffect(() => {
    let request = 0;
    const draw = () => {
      request = 0;
      const context = canvas.current?.getContext("2d");
      const session = useSession.getState();
      const at = shownTime(session);
      const shown = session.pointed === null && session.stay === null ? session.end : rehearsalAt(session, at);
      if (!context || !session.setting || !shown || !canvas.current) return;
      const { setting: now } = session;
      const seen = held ? { ...now, stage: { ...now.stage, ...stageWith(now.stage, held.grab, held.area) } } : now;
      paintMoment(context, seen, shown, zoom, inksOf(canvas.current), {
        ...look,
        chosen,
        events: look.events ? eventsAt(session, at) : [],
      });
      const { current } = shown.run.now;
      const rule = current && session.setting.program.rules[current.rule];
      canvas.current.dataset.rule = rule?.name ?? "";
      canvas.current.dataset.clip = current?.cast.clip ?? "";
      canvas.current.dataset.at = String(at / 1000);
    };
    const soon = () => {
      if (request === 0) request = requestAnimationFrame(draw);
    };
    soon();
    const stops = [onThemeChange(soon), useSession.subscribe(soon), usePictures.subscribe(soon), useHiddenLayers.subscribe(soon)];
    return () => {
      cancelAnimationFrame(request);
      for (const stop of stops) stop();
    };
  }, [canvas, zoom, look, chosen, held]);
}

/** The events that came shortly before a time. */
function eventsAt({ log: { events } }: Pick<Session, "log">, at: Micros): string[] {
  const names: string[] = [];
  for (let k = events.length - 1; k >= 0 && (events[k] as { at: Micros }).at > at - FLASH; k--) {
    const event = events[k];
    if (event && event.at <= at && !names.includes(event.name)) names.unshift(event.name);
  }
  return names;
}

/** A short click for every event while the rehearsal runs, for who asked for it. */
function useClicks(): void {
  const clicks = useStageLook((look) => look.clicks);
  useEffect(() => {
    if (!clicks) return;
    const audio = new AudioContext();
    let heard = useSession.getState().log.events.length;
    const stop = useSession.subscribe(({ log, running }) => {
      const count = log.events.length;
      if (running && count > heard) {
        // A browser keeps silent what was made before anyone touched the page.
        if (audio.state === "suspended") void audio.resume();
        const [tone, volume] = [audio.createOscillator(), audio.createGain()];
        tone.frequency.value = 1400;
        volume.gain.setValueAtTime(0.15, audio.currentTime);
        volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.03);
        tone.connect(volume).connect(audio.destination);
        tone.start();
        tone.stop(audio.currentTime + 0.03);
      }
      heard = count;
    });
    return () => {
      stop();
      void audio.close();
    };
  }, [clicks]);
}

function inksOf(element: Element): StageInks {
  const style = getComputedStyle(element);
  return {
    plain: style.getPropertyValue("--flat"),
    ink: style.color,
    now: style.getPropertyValue("--now"),
    zone: "#8fb8d8",
  };
}

/** The distance from the figure, in px of the game, at which the pointer keeps its facing. */
const THERE = 4;

/** A pointer that is held down leads the figure; with Shift it only makes it look there. */
function useWalking(canvas: React.RefObject<HTMLCanvasElement | null>, stage: Stage, scale: number) {
  const held = useRef<{ to: FramePoint; goings: ReadonlySet<Going> } | null>(null);
  const lead = () => {
    const now = held.current;
    const moving = useSession.getState().end?.moving;
    if (!now || !moving) return;
    const [dx, dy] = [now.to.x - moving.x, now.to.y - moving.y];
    const goings = new Set<Going>();
    if (Math.abs(dx) > THERE) goings.add(dx > 0 ? "right" : "left");
    if (stage.view === "above" && Math.abs(dy) > THERE) goings.add(dy > 0 ? "down" : "up");
    for (const each of goings) if (!now.goings.has(each)) control({ go: each }, true);
    for (const each of now.goings) if (!goings.has(each)) control({ go: each }, false);
    held.current = { ...now, goings };
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: it follows whatever it is told of last
  useEffect(() => useSession.subscribe(lead), [stage]);
  const pointOf = (event: PointerEvent<HTMLCanvasElement>): FramePoint => worldPoint(event, canvas.current, stage, scale);
  const letGo = () => {
    const now = held.current;
    held.current = null;
    for (const each of now?.goings ?? []) control({ go: each }, false);
  };
  return {
    onPointerDown: (event: PointerEvent<HTMLCanvasElement>) => {
      if (event.button !== 0) return;
      event.currentTarget.focus({ preventScroll: true });
      event.currentTarget.setPointerCapture(event.pointerId);
      const to = pointOf(event);
      if (event.shiftKey) return lookToward(to);
      held.current = { to, goings: new Set() };
      lead();
    },
    onPointerMove: (event: PointerEvent<HTMLCanvasElement>) => {
      if (event.shiftKey && event.buttons === 1) return lookToward(pointOf(event));
      if (!held.current) return;
      held.current = { ...held.current, to: pointOf(event) };
      lead();
    },
    onPointerUp: letGo,
    onPointerCancel: letGo,
  };
}

function lookToward(to: FramePoint): void {
  const moving = useSession.getState().end?.moving;
  const angle = moving ? angleOf(to.x - moving.x, to.y - moving.y) : null;
  if (moving && angle !== null) lookThere(facingToward(angle, 8, moving.facing));
}

/** The keys that drive, lit while they are held; a finger works them too. */
function HeldKeys({ stage }: { stage: Stage }) {
  const held = useSession(({ end }) =>
    stage.keys
      .map((key) => ("go" in key ? (end?.goings.has(key.go) ? "1" : "0") : end?.run.now.values.get(key.input) === true ? "1" : "0"))
      .join(""),
  );
  return (
    <ul aria-label={t("Keys that drive")} className="absolute bottom-2 left-2 flex flex-wrap gap-1.5 pr-2">
      {stage.keys.map((key, k) => {
        const what = controlOf(key);
        const isHeld = held[k] === "1";
        const up = () => control(what, false);
        return (
          <li key={`${key.code} ${nameOfControl(what)}`}>
            <button
              type="button"
              tabIndex={-1}
              aria-label={t("Drive: {control}", { control: nameOfControl(what) })}
              aria-pressed={isHeld}
              className={`min-h-7 touch-none rounded-box border px-2 text-small select-none pointer-coarse:min-h-11 pointer-coarse:min-w-11 ${isHeld ? "border-now bg-now font-semibold text-on-now" : "border-[#4a4438] bg-[rgb(20_16_10/0.75)] text-[#e9dfcb]"}`}
              onPointerDown={(event) => {
                event.preventDefault();
                event.currentTarget.setPointerCapture(event.pointerId);
                control(what, true);
              }}
              onPointerUp={up}
              onPointerCancel={up}
            >
              {"go" in key ? printedOn(key.code) : `${printedOn(key.code)} ${key.input}`}
            </button>
          </li>
        );
      })}
    </ul>
  );
}
