"use client";

import { DRAWN_WAYS, type DrawnWay, type OriginPlace, PLACES, STEADY_AXES, type SteadyAxes, sameSizes, shareOf } from "@caravan/core/marks";
import type { FramePoint } from "@caravan/core/model";
import { Toolbar } from "radix-ui";
import { useState } from "react";
import { create } from "zustand";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { inBackground } from "../../ui/in-background";
import { say } from "../../ui/notices";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import type { FramesInScope } from "./scope";
import { forget, setFromDrawn, setToPlace, setToPoint, setToShare } from "./set-origin";
import { useAxes } from "./steady-clip";

/** A copied origin, kept until the page is closed. */
const useCopiedOrigin = create<{ readonly point: FramePoint | null }>(() => ({ point: null }));

const DRAWN_WORDS: Record<DrawnWay, string> = { feet: t("Feet"), mass: t("Middle of mass"), box: t("Bottom of the box") };

const AXIS_WORDS: Record<SteadyAxes, string> = { both: t("x and y"), x: "x", y: "y" };

interface ToolsProps {
  readonly inScope: FramesInScope;
  readonly point: FramePoint;
  readonly size: { readonly w: number; readonly h: number };
  readonly own: boolean;
}

/** Sets the origin by nine places, numbers or the drawing, for any number of frames. */
export function OriginTools({ inScope, point, size, own }: ToolsProps) {
  const copied = useCopiedOrigin((state) => state.point);
  const same = sameSizes(inScope.frames);
  const [apart, setApart] = useState(false);
  const axes = useAxes((state) => state.axes);
  const share = shareOf(point, size);
  const several = inScope.frames.length > 1;
  return (
    <section aria-label={t("Origin")} className="scrolls flex w-64 shrink-0 flex-col gap-2.5">
      <Pad onPlace={(place) => setToPlace(inScope, place)} at={placeOf(point, size)} />
      <div className="flex flex-wrap gap-1.5">
        <FieldBox label="x">
          <HalfField label={t("Origin x")} value={point.x} onChange={(x) => setToPoint(inScope, { x })} />
        </FieldBox>
        <FieldBox label="y">
          <HalfField label={t("Origin y")} value={point.y} onChange={(y) => setToPoint(inScope, { y })} />
        </FieldBox>
        <span className="self-center text-small text-muted">{t("px")}</span>
      </div>
      <div>
        <p className="mb-1 text-small text-muted">{t("From the drawing")}</p>
        <div className="mb-1.5 flex items-center gap-1.5">
          <span className="text-small text-muted">{t("sets")}</span>
          <Choice
            label={t("What is set from the drawing")}
            value={axes}
            options={STEADY_AXES.map((each) => [each, AXIS_WORDS[each]] as const)}
            onChange={(next) => useAxes.setState({ axes: next })}
          />
        </div>
        <div className="flex flex-wrap gap-1.5">
          {DRAWN_WAYS.map((way) => (
            <Button key={way} onClick={() => inBackground(setFromDrawn(inScope, way, several && same && !apart, axes))}>
              {DRAWN_WORDS[way]}
            </Button>
          ))}
        </div>
        {several && same && <Tick label={t("each frame by its own drawing")} checked={apart} onChange={setApart} />}
        {several && !same && <p className="text-small text-muted">{t("Sizes differ, so each frame goes by its own drawing.")}</p>}
      </div>
      <div className="flex flex-wrap gap-1.5">
        <FieldBox label="x">
          <ShareField label={t("Origin x as a fraction")} value={share.x} onChange={(x) => setToShare(inScope, { x })} />
        </FieldBox>
        <FieldBox label="y">
          <ShareField label={t("Origin y as a fraction")} value={share.y} onChange={(y) => setToShare(inScope, { y })} />
        </FieldBox>
        <span className="self-center text-small text-muted">{t("of the size")}</span>
      </div>
      <div className="flex flex-wrap gap-1.5">
        <Button
          onClick={() => {
            useCopiedOrigin.setState({ point });
            say({ tone: "good", text: t("Copied the origin {x}, {y}.", { x: point.x, y: point.y }) });
          }}
        >
          {t("Copy")}
        </Button>
        <Button disabled={!copied} onClick={() => copied && setToPoint(inScope, copied)}>
          {t("Paste")}
        </Button>
        <Button disabled={!own && !several} onClick={() => forget(inScope)}>
          {t("Use the source’s")}
        </Button>
      </div>
    </section>
  );
}

/** Pixels of a frame, in halves. */
export function HalfField({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => string | undefined }) {
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
    <Toolbar.Root aria-label={t("Nine places")} className="grid w-40 grid-cols-3 gap-0 self-center border border-line-strong">
      {PLACES.map((place) => (
        <Toolbar.Button
          key={place}
          aria-label={t("Origin at the {place}", { place })}
          title={t("At the {place}", { place })}
          aria-pressed={at === place}
          onClick={(event) => {
            onPlace(place);
            // Chosen by the pointer, it leaves the arrow keys to the origin.
            if (event.detail > 0) event.currentTarget.blur();
          }}
          className="flex h-9 items-center justify-center hover:bg-lapis-soft"
        >
          <span className={`block ${at === place ? "size-3.5 rounded-sm bg-now" : "size-2 rounded-full bg-lapis"}`} />
        </Toolbar.Button>
      ))}
    </Toolbar.Root>
  );
}
