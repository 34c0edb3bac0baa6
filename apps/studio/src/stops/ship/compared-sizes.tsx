"use client";

import { type Atlas, type AtlasFrame, readAtlas } from "@caravan/core/atlas";
import { besidePath } from "@caravan/core/delivery-plan";
import { type Clip, ownOf } from "@caravan/core/model";
import { useEffect, useMemo, useRef, useState } from "react";
import { useProject } from "../../project/open-project";
import { chosenClip, useView } from "../../project/view";
import { NumberField } from "../../ui/number-field";
import { withParts } from "../../ui/rich-words";
import { t } from "../../ui/words";
import { type Delivered, shownPages } from "../../workers/jobs";
import { useDelivery } from "./chosen-delivery";

/** The greatest height of a frame, in CSS pixels. */
const HIGH = 260;

/** One frame at each delivered size, equally large on the screen: the losses of smaller sizes are visible. */
export function ComparedSizes({ delivered }: { delivered: Delivered }) {
  const { delivery } = useDelivery();
  const project = useProject((each) => each);
  const clip = useView((view) => chosenClip(project, view));
  const [step, setStep] = useState(0);
  const atlases = useMemo(
    () =>
      delivery.densities.map(({ suffix }) => {
        const path = besidePath(`${delivery.name}${suffix}`, "atlas");
        const file = delivered.files.find((each) => each.path === path);
        return file ? readAtlas(file.bytes, path) : null;
      }),
    [delivered, delivery],
  );
  const first = atlases[0];
  if (!first)
    return (
      <p className="check grow rounded-box border border-line p-4">
        {t("Sizes are compared by what their atlas files say: tick “atlas file” among the files beside the pictures.")}
      </p>
    );
  const steps = stepsOf(first, clip);
  const name = steps[Math.min(step, steps.length - 1)] ?? Object.keys(first.frames)[0];
  const base = name === undefined ? undefined : ownOf(first.frames, name);
  return (
    <section
      aria-label={t("Sizes compared")}
      className="check flex min-h-0 grow flex-col gap-3 overflow-auto rounded-box border border-line p-4"
    >
      <p className="flex items-center gap-2 self-start rounded-box border border-line bg-raised px-2 py-0.5">
        {name}{" "}
        {steps.length > 1 && (
          <>
            ·{" "}
            {withParts("step {step} of {clip}", {
              step: (
                <NumberField
                  label={t("Step that is compared")}
                  value={Math.min(step, steps.length - 1)}
                  most={steps.length - 1}
                  onChange={(next) => void setStep(next)}
                />
              ),
              clip: clip?.name,
            })}
          </>
        )}
      </p>
      <div className="flex flex-wrap items-end gap-6">
        {base &&
          name !== undefined &&
          delivery.densities.map(({ scale, suffix }, k) => {
            const atlas = atlases[k];
            const frame = ownOf(atlas?.frames, name);
            const [least] = delivery.densities;
            const shown = (base.size.h / (least?.scale ?? 1)) * wholeZoom(base, least?.scale ?? 1);
            return (
              atlas &&
              frame && (
                <Sample
                  key={`${scale} ${suffix}`}
                  delivered={delivered}
                  atlas={atlas}
                  suffix={suffix}
                  frame={frame}
                  scale={scale}
                  zoom={shown / frame.size.h}
                  smooth={delivery.filter === "linear"}
                />
              )
            );
          })}
      </div>
    </section>
  );
}

/** Frame names of a clip, step by step, as far as they are delivered. */
function stepsOf(atlas: Atlas, clip: Clip | null): string[] {
  const own = clip ? ownOf(atlas.clips, clip.name) : undefined;
  return (own ?? Object.values(atlas.clips)[0])?.steps.map(({ frame }) => frame) ?? [];
}

/** How large the art at its own size is shown. */
function wholeZoom({ size }: AtlasFrame, scale: number): number {
  return Math.max(1, Math.floor(HIGH / (size.h / scale)));
}

function Sample({
  delivered,
  atlas,
  suffix,
  frame,
  scale,
  zoom,
  smooth,
}: {
  delivered: Delivered;
  atlas: Atlas;
  suffix: string;
  frame: AtlasFrame;
  scale: number;
  zoom: number;
  smooth: boolean;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { w, h } = frame.size;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    context.clearRect(0, 0, w, h);
    const shown = shownPages(delivered.pages);
    for (const layer of [null, ...(atlas.layers ?? [])]) {
      const page = atlas.pages[frame.page];
      const image = layer === null ? page?.image : page?.layers?.[layer.name];
      const view = delivered.views[shown.findIndex((each) => each.image === image)];
      if (!view) continue;
      context.globalCompositeOperation =
        layer === null || layer.blend === "normal" ? "source-over" : layer.blend === "add" ? "lighter" : "multiply";
      drawStored(context, view.bitmap, frame);
    }
    context.globalCompositeOperation = "source-over";
  }, [delivered, atlas, frame, w, h]);
  return (
    <figure className="flex flex-col items-center gap-1.5">
      <canvas
        ref={canvas}
        aria-hidden
        data-testid="compared-size"
        width={w}
        height={h}
        className={`outline outline-line ${smooth ? "" : "[image-rendering:pixelated]"}`}
        style={{ width: w * zoom, height: h * zoom }}
      />
      <figcaption className="number rounded-box border border-line bg-raised px-2 text-small">
        {t("×{scale}  {suffix} · {w} × {h} px", { scale, suffix, w, h })}
      </figcaption>
    </figure>
  );
}

/** A frame from its page, upright and untrimmed, as a game draws it. */
function drawStored(context: CanvasRenderingContext2D, page: ImageBitmap, { rect, turned, mirrored, inset }: AtlasFrame): void {
  const { x, y, w, h } = rect;
  const upright = turned ? { w: h, h: w } : { w, h };
  context.save();
  context.imageSmoothingEnabled = false;
  context.translate(inset.x, inset.y);
  if (mirrored) {
    context.translate(upright.w, 0);
    context.scale(-1, 1);
  }
  if (turned) {
    context.translate(0, upright.h);
    context.rotate(-Math.PI / 2);
  }
  context.drawImage(page, x, y, w, h, 0, 0, w, h);
  context.restore();
}
