"use client";

import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { useDelivery } from "./chosen-delivery";

/** How frames are packed: the usual distances in sight, the rest one click away. */
export function AtlasSettings() {
  const { delivery, set } = useDelivery();
  const { packing } = delivery;
  return (
    <>
      <FieldBox label="apart">
        <NumberField
          label="Distance between frames"
          value={packing.paddingPx}
          most={64}
          onChange={(paddingPx) => set({ packing: { paddingPx } })}
        />
        <span className="text-small text-muted">px</span>
      </FieldBox>
      <FieldBox label="edge repeated">
        <NumberField label="Edge repeated" value={packing.extrudePx} most={16} onChange={(extrudePx) => set({ packing: { extrudePx } })} />
        <span className="text-small text-muted">px</span>
      </FieldBox>
      <More label={`Pages: ${pagesInWords(packing)}`}>
        <PageSettings />
      </More>
      <More label="Placing">
        <PlacingSettings />
      </More>
    </>
  );
}

function pagesInWords({ sides, fixed, maxPx, square }: ReturnType<typeof useDelivery>["delivery"]["packing"]): string {
  if (sides === "fixed") return `${fixed.w} × ${fixed.h}`;
  return `${square ? "square, " : ""}${sides === "powerOfTwo" ? "powers of two " : ""}up to ${maxPx}`;
}

/** Settings that are seldom changed, in a box of their own. */
function More({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button>{label} …</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          aria-label={label}
          className="z-30 flex max-w-110 flex-col items-start gap-2 rounded-box border border-line-strong bg-surface p-3"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function PageSettings() {
  const { delivery, set } = useDelivery();
  const { packing } = delivery;
  return (
    <>
      <Choice
        label="Sides of a page"
        value={packing.sides}
        options={[
          ["free", "As small as can be"],
          ["powerOfTwo", "Powers of two"],
          ["fixed", "One size"],
        ]}
        onChange={(sides) => set({ packing: { sides } })}
      />
      {packing.sides === "fixed" ? (
        <FieldBox label="every page">
          <NumberField
            label="Width of every page"
            value={packing.fixed.w}
            least={16}
            most={16_384}
            step={64}
            onChange={(w) => set({ packing: { fixed: { ...packing.fixed, w } } })}
          />
          ×
          <NumberField
            label="Height of every page"
            value={packing.fixed.h}
            least={16}
            most={16_384}
            step={64}
            onChange={(h) => set({ packing: { fixed: { ...packing.fixed, h } } })}
          />
          <span className="text-small text-muted">px</span>
        </FieldBox>
      ) : (
        <>
          <FieldBox label="up to">
            <NumberField
              label="Largest page side"
              value={packing.maxPx}
              least={16}
              most={16_384}
              step={256}
              onChange={(maxPx) => set({ packing: { maxPx } })}
            />
            <span className="text-small text-muted">px a side</span>
          </FieldBox>
          <Tick label="as wide as high" checked={packing.square} onChange={(square) => set({ packing: { square } })} />
        </>
      )}
      <div className="flex gap-2">
        <FieldBox label="at most">
          <NumberField
            label="Most pages"
            value={packing.maxPages}
            least={1}
            most={999}
            onChange={(maxPages) => set({ packing: { maxPages } })}
          />
          <span className="text-small text-muted">pages</span>
        </FieldBox>
        <FieldBox label="clear border">
          <NumberField label="Clear border" value={packing.borderPx} most={64} onChange={(borderPx) => set({ packing: { borderPx } })} />
          <span className="text-small text-muted">px</span>
        </FieldBox>
      </div>
      <p className="text-small text-muted">Kept on one page, where pages are large enough:</p>
      <Choice
        label="Kept on one page"
        value={packing.together}
        options={[
          ["nothing", "nothing"],
          ["clips", "each clip"],
          ["actions", "each action"],
        ]}
        onChange={(together) => set({ packing: { together } })}
      />
    </>
  );
}

function PlacingSettings() {
  const { delivery, set } = useDelivery();
  const { packing } = delivery;
  return (
    <>
      <div className="flex items-center gap-3">
        <Tick label="trim clear edges" checked={packing.trim} onChange={(trim) => set({ packing: { trim } })} />
        {packing.trim && (
          <FieldBox label="leaving">
            <NumberField
              label="Clear pixels left around"
              value={packing.trimMarginPx}
              most={64}
              onChange={(trimMarginPx) => set({ packing: { trimMarginPx } })}
            />
            <span className="text-small text-muted">px</span>
          </FieldBox>
        )}
      </div>
      <Tick label="share equal frames" checked={packing.share} onChange={(share) => set({ packing: { share } })} />
      {packing.share && (
        <Tick
          label="share mirror pictures too: the game must draw those mirrored"
          checked={packing.shareMirrored}
          onChange={(shareMirrored) => set({ packing: { shareMirrored } })}
        />
      )}
      <Tick label="may turn frames" checked={packing.turn} onChange={(turn) => set({ packing: { turn } })} />
      <Tick
        label="search longer for smaller pages"
        checked={packing.effort === "high"}
        onChange={(high) => set({ packing: { effort: high ? "high" : "normal" } })}
      />
    </>
  );
}
