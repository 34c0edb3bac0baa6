"use client";

import { useEffect, useRef, useState } from "react";
import { useElementSize } from "../../ui/element-size";
import { sizeInWords } from "../../ui/files";
import { type Delivered, type PictureView, type ShownPage, shownPages } from "../../workers/jobs";

/** More pictures than this are not shown beside each other; the list of files has them all. */
const MOST_SHOWN = 48;

/** The pictures as they will be: pages at the largest whole zoom that fits, many small ones beside each other. */
export function Pages({ delivered }: { delivered: Delivered }) {
  const { pages, views, files } = delivered;
  const pictures = shownPages(pages);
  const room = useRef<HTMLDivElement>(null);
  const { width: w, height: h } = useElementSize(room);
  return (
    <section
      ref={room}
      tabIndex={0}
      aria-label="Pages"
      className={`check flex min-h-0 grow gap-4 overflow-auto rounded-box border border-line p-4 ${views.length > 0 ? "flex-col items-center" : "flex-wrap content-start items-end"}`}
    >
      {views.length > 0
        ? pictures.map((shown, k) => (
            <Page
              key={shown.image}
              shown={shown}
              view={views[k]}
              place={`page ${pages.indexOf(shown.page) + 1} of ${pages.length}`}
              room={{ w, h }}
            />
          ))
        : pictures
            .slice(0, MOST_SHOWN)
            .map((shown) => <Small key={shown.image} shown={shown} bytes={files.find(({ path }) => path === shown.image)?.bytes} />)}
      {views.length === 0 && pictures.length > MOST_SHOWN && (
        <p className="rounded-box border border-line bg-raised px-2 text-small">
          and {pictures.length - MOST_SHOWN} more, all in the list of files
        </p>
      )}
    </section>
  );
}

/** One of many pictures, or a film in motion, from the very bytes that are delivered. */
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

function Page({
  shown,
  view,
  place,
  room,
}: {
  shown: ShownPage;
  view: PictureView | undefined;
  place: string;
  room: { w: number; h: number };
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { page, layer } = shown;
  const { w, h } = page.size;
  const fit = Math.min((room.w - 40) / w, (room.h - 70) / h);
  const zoom = fit >= 1 ? Math.min(8, Math.floor(fit)) : fit >= 0.5 ? 0.5 : fit >= 0.25 ? 0.25 : 0.125;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !view) return;
    const scale = Math.max(1, Math.floor(zoom * devicePixelRatio));
    context.canvas.width = zoom >= 1 ? w * scale : Math.ceil(w * zoom * devicePixelRatio);
    context.canvas.height = zoom >= 1 ? h * scale : Math.ceil(h * zoom * devicePixelRatio);
    context.imageSmoothingEnabled = zoom < 1;
    const { bitmap, overview } = view;
    const from = overview && zoom * devicePixelRatio * overview.reduction <= 1 ? overview.bitmap : bitmap;
    context.drawImage(from, 0, 0, context.canvas.width, context.canvas.height);
  }, [view, w, h, zoom]);
  return (
    <figure className="m-auto flex shrink-0 flex-col items-center gap-2">
      <canvas ref={canvas} aria-hidden data-testid="page" className="outline outline-lapis" style={{ width: w * zoom, height: h * zoom }} />
      <figcaption className="number rounded-box border border-line bg-raised px-2 text-small">
        {layer === null ? place : `${layer} over ${place.replace(/ of \d+$/, "")}`} · {w} × {h} ·{" "}
        {layer === null && `${(page.occupancy * 100).toFixed(1)} % filled · `}
        {page.layers && `${sizeInWords(w * h * 4)} in memory · `}
        {zoom >= 1 ? `${zoom}×` : `1/${1 / zoom}×`}
      </figcaption>
    </figure>
  );
}
