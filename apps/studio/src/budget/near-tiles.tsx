"use client";

import { frameLook } from "@caravan/core/art";
import { mergePieces, usesOfPiece } from "@caravan/core/edit";
import { counted, type Frame, type FrameRef, findFrame, frameName, frameRef, type Project, type Source } from "@caravan/core/model";
import type { NearPair } from "@caravan/core/tiles";
import { useState } from "react";
import { FramePicture } from "../preview/frame-picture";
import { act } from "../project/act";
import { useProject } from "../project/open-project";
import { picturesOfFrames } from "../project/pictures-of-frames";
import { Button } from "../ui/button";
import { inBackground } from "../ui/in-background";
import { sayTrouble } from "../ui/notices";
import { FieldBox, NumberField } from "../ui/number-field";
import { t } from "../ui/words";
import { run } from "../workers/client";
import { asText } from "../workers/jobs";

/** The number of pairs shown. */
const SHOWN = 12;

interface Found {
  readonly pieces: readonly FrameRef[];
  /** What each piece showed when they were compared. */
  readonly asThen: readonly string[];
  readonly pairs: readonly NearPair[];
}

/** Everything that a piece's pixels depend on. */
function shownOf(project: Project, ref: FrameRef): string {
  const found = findFrame(project, ref);
  if (!found) return "";
  const { rect, turned, size, inset } = found.frame;
  return JSON.stringify([frameLook(project, found.source, found.frame).key, found.source.scale, rect, turned, size, inset]);
}

/** Pieces on the frames of a source that nearly agree: each pair in place, and either to be used for both. */
export function NearTiles({ source }: { source: Source }) {
  const project = useProject((each) => each);
  const [most, setMost] = useState(4);
  const [found, setFound] = useState<Found | null>(null);
  const look = async () => {
    const pieces = [...new Set(source.frames.flatMap((frame) => (frame.pieces ?? []).map(({ of }) => of)))];
    const pictures = await picturesOfFrames(project, pieces);
    const pairs = await run("nearPieces", { project: asText(project), frames: pieces, pictures, most });
    setFound({ pieces, asThen: pieces.map((ref) => shownOf(project, ref)), pairs });
  };
  // Results for other art, or in other colours, do not apply any more.
  const changed = found?.pieces.some((ref, k) => shownOf(project, ref) !== found.asThen[k]) === true;
  const used = new Set(source.frames.flatMap((frame) => (frame.pieces ?? []).map(({ of }) => of)));
  // Those that were merged meanwhile are none any more.
  const pairs = (changed ? [] : (found?.pairs ?? [])).flatMap(({ one, other, ...rest }) => {
    const [a, b] = [found?.pieces[one] as FrameRef, found?.pieces[other] as FrameRef];
    return used.has(a) && used.has(b) ? [{ one: a, other: b, ...rest }] : [];
  });
  return (
    <div className="mt-2 border-t border-line pt-2">
      <div className="flex flex-wrap items-center gap-1.5">
        <Button className="min-h-7" onClick={() => inBackground(look().catch(sayTrouble))}>
          {t("Find near-duplicate pieces")}
        </Button>
        <FieldBox label={t("to")}>
          <NumberField
            label={t("Pixels by which pieces may differ")}
            value={most}
            least={0}
            most={64}
            onChange={(next) => void setMost(next)}
          />
          {t("px")}
        </FieldBox>
      </div>
      {found && pairs.length === 0 && (
        <p className="mt-1.5 text-muted">
          {changed ? t("The pieces have changed. Search again.") : t("No two pieces differ by so little.")}
        </p>
      )}
      <ul aria-label={t("Near-duplicate pieces")} className="mt-1.5 flex flex-col gap-2">
        {pairs.slice(0, SHOWN).map((pair) => (
          <Pair key={`${pair.one} ${pair.other}`} project={project} source={source} {...pair} />
        ))}
      </ul>
      {pairs.length > SHOWN && <p className="text-small text-muted">{t("and {count} more", { count: pairs.length - SHOWN })}</p>}
    </div>
  );
}

interface PairProps extends Pick<NearPair, "flip" | "differ"> {
  readonly project: Project;
  readonly source: Source;
  readonly one: FrameRef;
  readonly other: FrameRef;
}

function Pair({ project, source, one, other, flip, differ }: PairProps) {
  const refs = source.frames.map((frame) => frameRef(source, frame));
  const merge = (from: FrameRef, to: FrameRef) => act(mergePieces, refs, from, to, flip);
  return (
    <li className="rounded-box border border-line p-1.5">
      <p className="mb-1 text-small">
        {differ === 0
          ? t("Each is the other, flipped.")
          : flip
            ? t("They differ in {pixels}, flipped {flip}.", { pixels: counted(differ, "pixel"), flip })
            : t("They differ in {pixels}.", { pixels: counted(differ, "pixel") })}
      </p>
      <div className="flex gap-2">
        <Side project={project} source={source} piece={one} instead={other} onUse={() => merge(other, one)} />
        <Side project={project} source={source} piece={other} instead={one} onUse={() => merge(one, other)} />
      </div>
    </li>
  );
}

/** A piece, a frame that uses it unflipped, and the button that uses it for both. */
function Side({
  project,
  source,
  piece,
  instead,
  onUse,
}: {
  project: Project;
  source: Source;
  piece: FrameRef;
  instead: FrameRef;
  onUse: () => void;
}) {
  const found = findFrame(project, piece);
  const uses = usesOfPiece(project, piece).size;
  const on = source.frames.find(({ pieces = [] }) => pieces.some(({ of }) => of === piece || of === instead)) as Frame | undefined;
  if (!found) return null;
  const name = frameName(found.source, found.frame);
  return (
    <div className="flex min-w-0 grow basis-0 flex-col items-center gap-1">
      <span className="flex gap-1">
        <span className="check block rounded-sm">
          <FramePicture source={found.source} frame={found.frame} size={40} />
        </span>
        {on && (
          <span className="check block rounded-sm" title={t("{name} with this piece", { name: frameName(source, on) })}>
            <FramePicture
              source={source}
              frame={{ ...on, pieces: (on.pieces ?? []).map((each) => (each.of === instead ? { ...each, of: piece } : each)) }}
              size={40}
            />
          </span>
        )}
      </span>
      <span className="w-full truncate text-center text-small text-muted">
        {t("{name}, on {frames}", { name, frames: counted(uses, "frame") })}
      </span>
      <Button className="min-h-7" onClick={onUse} title={t("Use {name} for both", { name })}>
        {t("Use it for both")}
      </Button>
    </div>
  );
}
