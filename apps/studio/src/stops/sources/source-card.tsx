"use client";

import { type Look, lookOf, scaleInWords } from "@caravan/core/art";
import { isOfPieces, type Source, sheetOf } from "@caravan/core/model";
import { type ReactNode, useEffect, useRef } from "react";
import { FramePicture } from "../../preview/frame-picture";
import { loadPictures, usePicture, usePictureProblem } from "../../project/pictures";
import { chooseSource, go } from "../../project/view";
import { useWornLook } from "../../project/worn-look";
import { useNearView } from "../../ui/near-view";
import { withParts } from "../../ui/rich-words";
import { facts, t } from "../../ui/words";
import { coloursInWords, cutInWords, withBackgroundInWords } from "./facts";

interface Props {
  readonly source: Source;
  readonly chosen: boolean;
  /** On a long wall a card is filled when it comes near: reading hundreds of pictures at once would take all memory and time. */
  readonly long: boolean;
}

/** One source on the wall, in its own proportions, with its facts. */
export function SourceCard({ source, chosen, long }: Props) {
  const item = useRef<HTMLLIElement>(null);
  const isNear = useNearView(item, !long);
  return (
    <li ref={item}>
      <button
        type="button"
        data-chooses
        data-source={source.id}
        aria-pressed={chosen}
        onClick={() => chooseSource(source.id)}
        onDoubleClick={() => go("frames")}
        className={`w-full rounded-box border-2 bg-raised p-2 text-left transition-colors ${chosen ? "border-now" : "border-line hover:border-line-strong"}`}
      >
        {!isNear ? <NotYet source={source} /> : isOfPieces(source) ? <OfPieces source={source} /> : <OfPictures source={source} />}
      </button>
    </li>
  );
}

/** As large as a filled card. */
function NotYet({ source }: { source: Source }) {
  return (
    <>
      <Shown>{null}</Shown>
      <Named source={source} />
      <span className="block h-9" />
    </>
  );
}

/** For assembled frames: the first one represents it. */
function OfPieces({ source }: { source: Source }) {
  const [first] = source.frames;
  return (
    <>
      <Shown>{first && <FramePicture source={source} frame={first} size={140} />}</Shown>
      <Named source={source} />
      <span className="block text-small text-muted">
        {first?.size
          ? withParts("put together from pieces, {size} px", {
              size: <span className="number">{`${first.size.w} × ${first.size.h}`}</span>,
            })
          : t("put together from pieces")}
      </span>
    </>
  );
}

function OfPictures({ source }: { source: Source }) {
  const sheet = sheetOf(source);
  const look = useWornLook(source);
  // Facts of the art itself, without its layers.
  const picture = usePicture(source.layers ? lookOf(source, sheet) : look);
  const problem = usePictureProblem(look);
  const more = facts(
    source.palette !== undefined && t("in {palette}", { palette: source.palette }),
    source.scale !== undefined && scaleInWords(source.scale),
    source.pictures.length > 1 && t("{count} pictures", { count: source.pictures.length }),
    source.layers && t("with {layers}", { layers: source.layers.map(({ name }) => name).join(", ") }),
    picture && coloursInWords(picture.facts),
  );
  return (
    <>
      <Shown>
        <WholePicture look={look} width={sheet.width} height={sheet.height} />
      </Shown>
      <Named source={source} />
      <span className="block text-small text-muted">
        {withParts("{size} px", { size: <span className="number">{`${sheet.width} × ${sheet.height}`}</span> })}
        {more && ` · ${more}`}
      </span>
      <span className={`block text-small ${picture?.facts.ground === "opaque" || problem ? "font-semibold text-brick" : "text-muted"}`}>
        {picture ? withBackgroundInWords(picture.facts) : (problem ?? t("reading …"))}
      </span>
    </>
  );
}

function Shown({ children }: { children: ReactNode }) {
  return <span className="check flex h-38 items-center justify-center overflow-hidden rounded-sm">{children}</span>;
}

/** Its name, and how far its cutting is. */
function Named({ source }: { source: Source }) {
  const done = source.cut !== null || isOfPieces(source);
  return (
    <span className="mt-2 flex justify-between gap-2">
      <strong className="truncate">{source.name}</strong>
      <span className={`shrink-0 ${done ? "text-muted" : "font-semibold text-now-text"}`}>{cutInWords(source)}</span>
    </span>
  );
}

const ROOM = { w: 190, h: 140 };

/** The whole picture at the largest whole zoom that fits, or reduced. */
export function WholePicture({
  look,
  width,
  height,
  room = ROOM,
}: {
  look: Look;
  width: number;
  height: number;
  room?: { w: number; h: number };
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const picture = usePicture(look);
  useEffect(() => loadPictures([look]), [look]);
  const fit = Math.min(room.w / width, room.h / height);
  const scale = fit >= 1 ? Math.min(4, Math.floor(fit)) : fit;
  const w = Math.max(1, Math.round(width * scale));
  const h = Math.max(1, Math.round(height * scale));
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !picture) return;
    const density = Math.max(1, Math.round(devicePixelRatio));
    context.canvas.width = w * density;
    context.canvas.height = h * density;
    // Only a reduced picture is smoothed: a thumbnail that leaves out every other pixel shows nothing of it.
    context.imageSmoothingEnabled = scale < 1;
    context.imageSmoothingQuality = "high";
    context.drawImage(picture.overview?.bitmap ?? picture.bitmap, 0, 0, w * density, h * density);
  }, [picture, w, h, scale]);
  return <canvas ref={canvas} aria-hidden style={{ width: w, height: h }} />;
}
