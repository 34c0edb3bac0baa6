"use client";

import { DRAWN_WAYS, type DrawnWay, type OriginPlace, PLACES, sameSizes, shareOf } from "@caravan/core/marks";
import { type Clip, type FramePoint, type FrameRef, findFrame, type Project } from "@caravan/core/model";
import { useMemo, useState } from "react";
import { create } from "zustand";
import { usePlayer, usePlayhead } from "../../../preview/player-state";
import { playedFrame } from "../../../preview/playing";
import { timelineOfClip } from "../../../preview/timelines";
import { useProject } from "../../../project/open-project";
import { useView } from "../../../project/view";
import { Button } from "../../../ui/button";
import { Choice } from "../../../ui/choice";
import { useKeys } from "../../../ui/keys";
import { say } from "../../../ui/notices";
import { FieldBox, NumberField } from "../../../ui/number-field";
import { Tick } from "../../../ui/tick";
import { chooseStep } from "../step-acts";
import { StepStrip } from "../step-strip";
import { OriginCanvas } from "./origin-canvas";
import { actionOf, type FramesInScope, framesInScope, type OriginScope } from "./scope";
import { forget, nudge, setFromDrawn, setToPlace, setToPoint, setToShare } from "./set-origin";

/** An origin that was copied, until the page is closed. */
const useCopiedOrigin = create<{ readonly point: FramePoint | null }>(() => ({ point: null }));

const SCOPE_WORDS: Record<OriginScope, string> = { frame: "Frame", clip: "Clip", action: "Action", source: "Source", all: "All" };
const DRAWN_WORDS: Record<DrawnWay, string> = { feet: "Feet", mass: "Middle of mass", box: "Bottom of the box" };

/** Where the frames stand: one of them large, nine places, numbers, what is drawn, for as many frames as one likes. */
export function OriginBench({ clip }: { clip: Clip }) {
  const project = useProject((each) => each);
  const [wanted, setScope] = useState<OriginScope>("clip");
  const step = useShownStep(clip);
  const hasAction = actionOf(project, clip) !== null;
  const scope = wanted === "action" && !hasAction ? "clip" : wanted;
  const inScope = useMemo(() => framesInScope(project, scope, clip, step), [project, scope, clip, step]);
  const ref = clip.steps[step]?.frame;
  const frame = useMemo(() => (ref ? playedFrame(project, ref) : null), [project, ref]);
  const ghosts = useMemo(
    () =>
      [step - 1, step + 1].flatMap((k) => {
        const other = clip.steps[(k + clip.steps.length) % clip.steps.length];
        const played = other && other.frame !== ref ? playedFrame(project, other.frame) : null;
        return played ? [played] : [];
      }),
    [project, clip, step, ref],
  );
  const by = (x: number, y: number) => nudge(inScope, { x, y });
  useKeys(
    "The origin",
    [
      { keys: "ArrowLeft", label: "Origin one pixel left", run: () => by(-1, 0) },
      { keys: "ArrowRight", label: "Origin one pixel right", run: () => by(1, 0) },
      { keys: "ArrowUp", label: "Origin one pixel up", run: () => by(0, -1) },
      { keys: "ArrowDown", label: "Origin one pixel down", run: () => by(0, 1) },
      { keys: "Alt+ArrowLeft", label: "Origin half a pixel left", run: () => by(-0.5, 0) },
      { keys: "Alt+ArrowRight", label: "Origin half a pixel right", run: () => by(0.5, 0) },
      { keys: "Alt+ArrowUp", label: "Origin half a pixel up", run: () => by(0, -0.5) },
      { keys: "Alt+ArrowDown", label: "Origin half a pixel down", run: () => by(0, 0.5) },
      // Laid out as on a number pad: 7 8 9 is the top row.
      ...PLACES.map((place, k) => ({
        keys: `Alt+${[7, 8, 9, 4, 5, 6, 1, 2, 3][k]}`,
        label: `Origin at the ${place}`,
        run: () => setToPlace(inScope, place),
      })),
    ],
    { first: true },
  );
  if (!frame || !ref) return <p className="p-4 text-muted">This step’s frame is missing, so there is nothing to stand.</p>;
  return (
    <div className="flex min-h-0 grow flex-col gap-2.5">
      <div className="flex min-h-0 grow gap-3">
        <div className="relative min-h-40 min-w-0 grow overflow-hidden rounded-box border border-line">
          <OriginCanvas frame={frame} ghosts={ghosts} onMove={(delta, gesture) => nudge(inScope, delta, gesture)} />
        </div>
        <OriginTools inScope={inScope} point={frame.origin} size={frame.size} own={hasOwn(project, ref)} />
      </div>
      <div className="flex flex-wrap items-center gap-3">
        <span className="text-muted">It is set for the</span>
        <Choice
          label="Set for"
          value={scope}
          options={(["frame", "clip", ...(hasAction ? ["action" as const] : []), "source", "all"] as const).map(
            (each) => [each, SCOPE_WORDS[each]] as const,
          )}
          onChange={setScope}
        />
        <span className="text-muted">
          {inScope.frames.length === 1 ? "1 frame" : `${inScope.frames.length} frames`} of {inScope.name}
        </span>
      </div>
      <StepStrip clip={clip} at={[step]} onChoose={(next) => chooseStep(clip, next)} />
    </div>
  );
}

/** The chosen step; without one, the step at which the player stands still. */
function useShownStep(clip: Clip): number {
  const chosen = useView((view) => view.steps[0]);
  const running = usePlayer((state) => state.running);
  const timeline = timelineOfClip(clip);
  const at = usePlayhead(({ elapsed }) => (running || !timeline ? 0 : timeline.shownAt(Math.round(elapsed)).step));
  return Math.min(chosen ?? at, Math.max(0, clip.steps.length - 1));
}

function hasOwn(project: Project, ref: FrameRef): boolean {
  return findFrame(project, ref)?.frame.origin !== undefined;
}

interface ToolsProps {
  readonly inScope: FramesInScope;
  readonly point: FramePoint;
  readonly size: { readonly w: number; readonly h: number };
  readonly own: boolean;
}

function OriginTools({ inScope, point, size, own }: ToolsProps) {
  const copied = useCopiedOrigin((state) => state.point);
  const same = sameSizes(inScope.frames.map(({ frame }) => frame));
  const [apart, setApart] = useState(false);
  const share = shareOf(point, size);
  const several = inScope.frames.length > 1;
  return (
    <section aria-label="Origin" className="flex w-64 shrink-0 flex-col gap-2.5 overflow-y-auto">
      <Pad onPlace={(place) => setToPlace(inScope, place)} at={placeOf(point, size)} />
      <div className="flex flex-wrap gap-1.5">
        <FieldBox label="x">
          <HalfField label="Origin x" value={point.x} onChange={(x) => setToPoint(inScope, { x, y: point.y })} />
        </FieldBox>
        <FieldBox label="y">
          <HalfField label="Origin y" value={point.y} onChange={(y) => setToPoint(inScope, { x: point.x, y })} />
        </FieldBox>
        <span className="self-center text-small text-muted">px</span>
      </div>
      <div className="flex flex-wrap gap-1.5">
        <FieldBox label="x">
          <ShareField label="Origin x as a share" value={share.x} onChange={(x) => setToShare(inScope, { x, y: share.y })} />
        </FieldBox>
        <FieldBox label="y">
          <ShareField label="Origin y as a share" value={share.y} onChange={(y) => setToShare(inScope, { x: share.x, y })} />
        </FieldBox>
        <span className="self-center text-small text-muted">of the size</span>
      </div>
      <div>
        <p className="mb-1 text-small text-muted">From what is drawn</p>
        <div className="flex flex-wrap gap-1.5">
          {DRAWN_WAYS.map((way) => (
            <Button key={way} onClick={() => void setFromDrawn(inScope, way, several && same && !apart)}>
              {DRAWN_WORDS[way]}
            </Button>
          ))}
        </div>
        {several && same && <Tick label="each frame by its own drawing" checked={apart} onChange={setApart} />}
        {several && !same && <p className="text-small text-muted">Sizes differ, so each frame goes by its own drawing.</p>}
      </div>
      <div className="flex flex-wrap gap-1.5">
        <Button
          onClick={() => {
            useCopiedOrigin.setState({ point });
            say({ tone: "good", text: `Copied the origin ${point.x}, ${point.y}.` });
          }}
        >
          Copy
        </Button>
        <Button disabled={!copied} onClick={() => copied && setToPoint(inScope, copied)}>
          Paste
        </Button>
        <Button disabled={!own && !several} onClick={() => forget(inScope)}>
          As the source
        </Button>
      </div>
    </section>
  );
}

function HalfField({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => string | undefined }) {
  return <NumberField label={label} value={value} least={-32_768} most={32_768} step={0.5} decimals={1} onChange={onChange} />;
}

function ShareField({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => string | undefined }) {
  return <NumberField label={label} value={value} least={-100} most={100} step={0.05} decimals={3} onChange={onChange} />;
}

function placeOf(point: FramePoint, { w, h }: ToolsProps["size"]): OriginPlace | null {
  const [column, row] = [(point.x * 2) / w, (point.y * 2) / h];
  return [0, 1, 2].includes(column) && [0, 1, 2].includes(row) ? (PLACES[row * 3 + column] as OriginPlace) : null;
}

/** The nine places of a box, as a pad. */
function Pad({ onPlace, at }: { onPlace: (place: OriginPlace) => void; at: OriginPlace | null }) {
  return (
    <fieldset className="grid w-40 grid-cols-3 gap-0 self-center border border-line-strong">
      <legend className="sr-only">Nine places</legend>
      {PLACES.map((place) => (
        <button
          key={place}
          type="button"
          aria-label={`Origin at the ${place}`}
          title={`At the ${place}`}
          aria-pressed={at === place}
          onClick={() => onPlace(place)}
          className="flex h-9 items-center justify-center hover:bg-lapis-soft"
        >
          <span className={`block ${at === place ? "size-3.5 rounded-sm bg-now" : "size-2 rounded-full bg-lapis"}`} />
        </button>
      ))}
    </fieldset>
  );
}
