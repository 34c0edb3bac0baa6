"use client";

import { Minus, Plus } from "lucide-react";
import { type PointerEvent, type ReactNode, type RefObject, useEffect, useRef, useState } from "react";
import { Button, IconButton } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { useElementSize } from "../../ui/element-size";
import { sizeInWords } from "../../ui/files";
import { useWheelSteps } from "../../ui/wheel-steps";
import { facts, t } from "../../ui/words";
import { evenScale, largestFitting, nextZoom, zoomsBetween } from "../../ui/zooms";
import { type Delivered, type PictureView, type ShownPage, shownPages } from "../../workers/jobs";
import { ComparedSizes } from "./compared-sizes";

/** The number of pictures shown together; the list of files has all of them. */
const MOST_SHOWN = 48;

const ZOOMS = zoomsBetween(0.125, 16);

/** The pictures as they will be; or, where there are several sizes, one frame at all of them. */
export function Pages({ delivered }: { delivered: Delivered }) {
  const { pages, views } = delivered;
  const canCompare = views.length > 0 && new Set(pages.map(({ suffix }) => suffix)).size > 1;
  const [wants, setWants] = useState<"pages" | "sizes">("pages");
  const which = canCompare && (
    <Choice
      label={t("View")}
      value={wants}
      options={[
        ["pages", t("Pages")],
        ["sizes", t("Sizes compared")],
      ]}
      onChange={setWants}
    />
  );
  return (
    <div className="flex min-h-0 min-w-0 grow flex-col gap-1.5">
      {canCompare && wants === "sizes" ? (
        <>
          <div className="flex">{which}</div>
          <ComparedSizes delivered={delivered} />
        </>
      ) : (
        <ZoomedPages delivered={delivered}>{which}</ZoomedPages>
      )}
    </div>
  );
}

/** Pages at the largest whole zoom that fits, until the wheel changes it; many small pictures side by side. */
function ZoomedPages({ delivered, children }: { delivered: Delivered; children: ReactNode }) {
  const { pages, views, files } = delivered;
  const pictures = shownPages(pages);
  const room = useRef<HTMLElement>(null);
  const { width: w, height: h, density } = useElementSize(room);
  const [chosen, setZoom] = useState<number | null>(null);
  const zoom = chosen ?? fitOf(pictures, { w, h }, density);
  const step = (direction: 1 | -1, at = { x: w / 2, y: h / 2 }) => {
    const next = nextZoom(ZOOMS, zoom, direction);
    const element = room.current;
    if (!element || next === zoom) return;
    // The point under the pointer stays in place, as far as scrolling allows.
    const [x, y] = [element.scrollLeft + at.x, element.scrollTop + at.y];
    setZoom(next);
    const grow = evenScale(next, density) / evenScale(zoom, density);
    requestAnimationFrame(() => element.scrollTo({ left: x * grow - at.x, top: y * grow - at.y }));
  };
  useWheelSteps(room, step, views.length > 0);
  const drag = useDragToScroll(room);
  return (
    <>
      {views.length > 0 && (
        <div className="flex items-center gap-2">
          {children}
          <span className="grow" />
          <IconButton label={t("Pages smaller")} look="quiet" onClick={() => step(-1)}>
            <Minus size={14} />
          </IconButton>
          <span className="number min-w-8 text-center text-small">{zoomInWords(zoom)}</span>
          <IconButton label={t("Pages larger")} look="quiet" onClick={() => step(1)}>
            <Plus size={14} />
          </IconButton>
          <Button look="quiet" className="min-h-6" onClick={() => setZoom(null)}>
            {t("Fit")}
          </Button>
        </div>
      )}
      <section
        {...drag}
        ref={room}
        tabIndex={0}
        aria-label={t("Pages")}
        className={`check flex min-h-0 grow gap-4 overflow-auto rounded-box border border-line p-4 ${views.length > 0 ? "flex-col items-center" : "flex-wrap content-start items-end"}`}
      >
        {views.length > 0
          ? pictures.map((shown, k) => (
              <Page
                key={shown.image}
                shown={shown}
                view={views[k]}
                number={pages.indexOf(shown.page) + 1}
                count={pages.length}
                zoom={zoom}
                density={density}
              />
            ))
          : pictures
              .slice(0, MOST_SHOWN)
              .map((shown) => <Small key={shown.image} shown={shown} bytes={files.find(({ path }) => path === shown.image)?.bytes} />)}
        {views.length === 0 && pictures.length > MOST_SHOWN && (
          <p className="rounded-box border border-line bg-raised px-2 text-small">
            {t("and {count} more, all in the list of files", { count: pictures.length - MOST_SHOWN })}
          </p>
        )}
      </section>
    </>
  );
}

function zoomInWords(zoom: number): string {
  return zoom >= 1 ? `${zoom}×` : `1/${1 / zoom}×`;
}

/** The largest zoom at which the first page fits. */
function fitOf(pictures: readonly ShownPage[], { w, h }: { w: number; h: number }, density: number): number {
  const size = pictures[0]?.page.size;
  if (!size || w === 0) return 1;
  const fits = largestFitting(ZOOMS, (zoom) => {
    const scale = evenScale(zoom, density);
    return size.w * scale <= w - 40 && size.h * scale <= h - 70;
  });
  return Math.min(8, fits);
}

/** Dragging scrolls. */
function useDragToScroll(element: RefObject<HTMLElement | null>) {
  const from = useRef<{ readonly x: number; readonly y: number; readonly left: number; readonly top: number } | null>(null);
  return {
    onPointerDown(event: PointerEvent) {
      const target = element.current;
      if (event.button !== 0 || event.pointerType === "touch" || !target) return;
      from.current = { x: event.clientX, y: event.clientY, left: target.scrollLeft, top: target.scrollTop };
    },
    onPointerMove(event: PointerEvent) {
      if (!from.current || event.buttons === 0) return;
      const { x, y, left, top } = from.current;
      element.current?.scrollTo({ left: left + x - event.clientX, top: top + y - event.clientY });
    },
    onPointerUp() {
      from.current = null;
    },
  };
}

/** One of many pictures, or a playing film, from exactly the delivered bytes. */
function Small({ shown, bytes }: { shown: ShownPage; bytes: Uint8Array | undefined }) {
  const [url, setUrl] = useState<string>();
  const {
    image,
    page: { size },
  } = shown;
  useEffect(() => {
    if (!bytes) return;
    const made = URL.createObjectURL(new Blob([bytes as BlobPart], { type: image.endsWith(".gif") ? "image/gif" : "image/png" }));
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [bytes, image]);
  const zoom = Math.max(1, Math.min(4, Math.floor(140 / Math.max(size.w, size.h))));
  return (
    <figure className="flex max-w-full flex-col items-center gap-1">
      {url && (
        // biome-ignore lint/performance/noImgElement: made on the spot, it needs no server to make it smaller
        <img
          src={url}
          alt=""
          data-testid="small-picture"
          width={size.w * zoom}
          height={size.h * zoom}
          className="max-w-full outline outline-line [image-rendering:pixelated]"
        />
      )}
      <figcaption className="number max-w-64 truncate rounded-box border border-line bg-raised px-2 text-small">
        {image.slice(image.lastIndexOf("/") + 1)} · {size.w} × {size.h}
      </figcaption>
    </figure>
  );
}

interface PageProps {
  readonly shown: ShownPage;
  readonly view: PictureView | undefined;
  /** Which page it is, from 1, and of how many. */
  readonly number: number;
  readonly count: number;
  readonly zoom: number;
  /** The screen's pixels per CSS pixel. */
  readonly density: number;
}

function Page({ shown, view, number, count, zoom, density }: PageProps) {
  const scale = evenScale(zoom, density);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { page, layer } = shown;
  const { w, h } = page.size;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !view) return;
    // When enlarged, the browser scales its pixels: a page at 16 × would take too much memory.
    context.canvas.width = zoom >= 1 ? w : Math.ceil(w * zoom * density);
    context.canvas.height = zoom >= 1 ? h : Math.ceil(h * zoom * density);
    context.imageSmoothingEnabled = zoom < 1;
    const { bitmap, overview } = view;
    const from = overview && zoom * density * overview.reduction <= 1 ? overview.bitmap : bitmap;
    context.drawImage(from, 0, 0, context.canvas.width, context.canvas.height);
  }, [view, w, h, zoom, density]);
  return (
    <figure className="m-auto flex shrink-0 flex-col items-center gap-2">
      <canvas
        ref={canvas}
        aria-hidden
        data-testid="page"
        className="outline outline-lapis [image-rendering:pixelated]"
        style={{ width: w * scale, height: h * scale }}
      />
      <figcaption className="number rounded-box border border-line bg-raised px-2 text-small">
        {facts(
          layer === null ? t("page {number} of {count}", { number, count }) : t("{layer} over page {number}", { layer, number }),
          `${w} × ${h}`,
          layer === null && t("{occupancy} % filled", { occupancy: (page.occupancy * 100).toFixed(1) }),
          page.layers && t("{size} in memory", { size: sizeInWords(w * h * 4) }),
          zoomInWords(zoom),
        )}
      </figcaption>
    </figure>
  );
}
