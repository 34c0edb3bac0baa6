"use client";

import { insertSteps, moveSteps } from "@caravan/core/edit";
import { type Clip, type FrameRef, msFromMicros } from "@caravan/core/model";
import type { DragEndEvent } from "@dnd-kit/core";
import { type CSSProperties, memo, useEffect, useRef, useState } from "react";
import { act } from "../../project/act";
import { useProject } from "../../project/open-project";
import { chooseClip, useView } from "../../project/view";
import { Dragging } from "../../ui/dragging";
import { useInSight } from "../../ui/in-sight";
import { t } from "../../ui/words";
import { AddTray } from "./add-tray";
import { chosenSteps } from "./chosen-steps";
import { useHeldScale } from "./edge-handle";
import { secondsInWords, totalOf } from "./pace-words";
import { Playhead } from "./playhead";
import { bandsOf, edgesOf, ribbonScale } from "./ribbon-scale";
import { Ruler } from "./ruler";
import { TallRibbon } from "./tall-ribbon";

const NAMES = 132; // px for clip names and lengths at the left
const STRIDE = 120; // px of scrolling before the rendered steps change
const AROUND = 160; // px rendered on either side of the view; more than a stride
const MARGIN = 40; // px after the end, for the last mark of the ruler

/** Every clip as a ribbon on one time ruler: the chosen one tall, the others thin above and below it. */
export function Ribbons({ clip }: { clip: Clip }) {
  const clips = useProject((project) => project.clips);
  const scroller = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 600, scrolled: 0 });
  useEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const measure = () => setRoom({ width: element.clientWidth, scrolled: Math.round(element.scrollLeft / STRIDE) * STRIDE });
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    element.addEventListener("scroll", measure, { passive: true });
    return () => {
      observer.disconnect();
      element.removeEventListener("scroll", measure);
    };
  }, []);
  const held = useHeldScale((state) => state.scale);
  const scale = held ?? ribbonScale(clip, Math.max(120, room.width - NAMES - MARGIN));
  const [from, until] = [room.scrolled - AROUND, room.scrolled + room.width + AROUND];
  const index = clips.indexOf(clip);
  const { shown, measure } = useInSight({
    count: clips.length,
    height: THIN_ROW,
    kept: [index],
    list: scroller,
    scroller: () => scroller.current,
  });
  const tall = useRef<HTMLDivElement>(null);
  const arrived = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another clip was selected, by any list or key
  useEffect(() => {
    // On arrival only the list scrolls: on a short screen the surface has to begin at its top.
    if (arrived.current) tall.current?.scrollIntoView({ block: "nearest" });
    else if (scroller.current && tall.current) showWithin(scroller.current, tall.current);
    arrived.current = true;
  }, [clip.name]);
  return (
    <Dragging id="ribbons" onDragEnd={(event) => dropped(clip, event)}>
      <section
        ref={scroller}
        aria-label={t("Ribbons")}
        className="min-h-0 grow overflow-auto rounded-box border border-line bg-surface py-2"
        style={{ [PX_PER_MS]: `${scale * 1000}px` } as CSSProperties}
        tabIndex={0}
      >
        {shown.map((each) => {
          if (!("index" in each)) return <div key={`before ${each.before}`} style={{ height: each.room }} />;
          const other = clips[each.index] as Clip;
          if (other !== clip)
            return (
              <div key={other.name} ref={measure} data-index={each.index}>
                <ThinRibbon clip={other} />
              </div>
            );
          return (
            <div key={clip.name} ref={measure} data-index={index} className="flow-root">
              <div ref={tall} className="relative my-1 w-max">
                <Ruler clip={clip} scale={scale} left={NAMES} margin={MARGIN} from={from} until={until} />
                <div className="flex items-center">
                  <RibbonName clip={clip} chosen />
                  <TallRibbon clip={clip} scale={scale} from={from} until={until} />
                </div>
                <Playhead clip={clip} scale={scale} left={NAMES} />
              </div>
            </div>
          );
        })}
      </section>
      <AddTray clip={clip} />
    </Dragging>
  );
}

/** A step dragged onto another takes its place; a frame dragged from the tray is inserted before the step. */
function dropped(clip: Clip, { active, over }: DragEndEvent): void {
  if (!over) return;
  const overStep = over.data.current?.step as number | undefined;
  const frame = active.data.current?.frame as FrameRef | undefined;
  const step = active.data.current?.step as number | undefined;
  if (frame) {
    const at = overStep === undefined ? clip.steps.length : isPastMiddle(active, over) ? overStep + 1 : overStep;
    if (act(insertSteps, clip.name, at, [frame])) useView.setState({ steps: [at] });
    return;
  }
  if (step === undefined || overStep === undefined || step === overStep) return;
  const chosen = chosenSteps(clip, useView.getState().steps);
  const moving = chosen.includes(step) ? chosen : [step];
  // Among the steps that stay, the place of the one dropped on; later if it was dragged to the right.
  const before = moving.filter((each) => each < overStep).length;
  const to = overStep - before + (overStep > step ? 1 : 0);
  if (act(moveSteps, clip.name, moving, to)) useView.setState({ steps: moving.map((_, k) => to + k) });
}

function isPastMiddle(active: DragEndEvent["active"], over: NonNullable<DragEndEvent["over"]>): boolean {
  const dragged = active.rect.current.translated;
  return dragged !== null && dragged.left + dragged.width / 2 > over.rect.left + over.rect.width / 2;
}

function RibbonName({ clip, chosen = false }: { clip: Clip; chosen?: boolean }) {
  return (
    <span
      className={`sticky left-0 z-10 flex shrink-0 justify-between gap-2 bg-surface pr-2 pl-3 ${chosen ? "font-bold" : "text-muted"}`}
      style={{ width: NAMES }}
      title={clip.name}
    >
      <span className="truncate">{clip.name}</span>
      <span className="shrink-0 font-normal text-muted">{clip.steps.length === 0 ? t("empty") : secondsInWords(totalOf(clip))}</span>
    </span>
  );
}

const THIN = 20; // px
/** With the space around it. */
const THIN_ROW = THIN + 8;

/** The scale as a CSS variable: changing it stretches hundreds of ribbons without rendering them again. */
const PX_PER_MS = "--px-per-ms";

/**
 * Another clip on the same scale, its steps in two tones, all of them one shape: there may be thousands. Its picture is in milliseconds and
 * stretched. A click chooses it.
 */
const ThinRibbon = memo(function ThinRibbon({ clip }: { clip: Clip }) {
  const ms = msFromMicros(totalOf(clip));
  return (
    <button
      type="button"
      tabIndex={-1}
      onClick={() => chooseClip(clip.name)}
      aria-label={t("Select {name}", { name: clip.name })}
      className="group flex w-max min-w-full items-center py-1 text-left"
    >
      <RibbonName clip={clip} />
      <svg
        aria-hidden
        viewBox={`0 0 ${ms} 1`}
        preserveAspectRatio="none"
        style={{ width: `calc(var(${PX_PER_MS}) * ${ms})`, height: THIN }}
        className="shrink-0 rounded-sm border border-line bg-raised group-hover:border-lapis"
        shapeRendering="crispEdges"
      >
        <path d={bandsOf(edgesOf(clip), msFromMicros(1), 1)} className="fill-lapis-soft" />
      </svg>
    </button>
  );
});

/** Scrolls a list by as little as shows an element in it, and nothing around the list. */
function showWithin(list: HTMLElement, element: HTMLElement): void {
  const [inner, outer] = [element.getBoundingClientRect(), list.getBoundingClientRect()];
  if (inner.bottom > outer.bottom) list.scrollTop += inner.bottom - outer.bottom;
  if (inner.top < outer.top) list.scrollTop -= outer.top - inner.top;
}
