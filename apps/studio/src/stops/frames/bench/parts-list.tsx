"use client";

import { usesOfPiece, usesOfPieces } from "@caravan/core/edit";
import {
  counted,
  type Frame,
  type FrameRef,
  findFrame,
  frameName,
  frameRef,
  frameSize,
  type Project,
  type Source,
} from "@caravan/core/model";
import { useMemo } from "react";
import { FramePicture } from "../../../preview/frame-picture";
import { useProject } from "../../../project/open-project";
import { useView } from "../../../project/view";
import { Button } from "../../../ui/button";
import { Select } from "../../../ui/select";
import { t } from "../../../ui/words";
import { PalettesList } from "./palettes-list";
import { frameOnBench, partSources, useBench } from "./state";

/** Lists the pieces that can be placed on a frame, and the palettes that it can wear. */
export function PartsList({ source }: { source: Source }) {
  const project = useProject((each) => each);
  const sources = partSources(project);
  const wanted = useBench((bench) => bench.parts);
  const cursor = useView((view) => view.cursor);
  const parts = sources.find(({ id }) => id === wanted) ?? partsOf(project, frameOnBench(source, cursor)) ?? sources[0];
  if (!parts)
    return (
      <p className="mt-4 px-1.5 text-muted">{t("Add a sheet of pieces at Sources and cut it; its frames can then be placed here.")}</p>
    );
  return (
    <>
      <div className="mt-3 flex items-center justify-between gap-2 px-1.5">
        <h3 className="font-semibold text-muted">{t("Pieces")}</h3>
        <Select
          label={t("Pieces of")}
          value={parts.id as string}
          options={sources.map(({ id, name }) => [id as string, name] as const)}
          onChange={(id) => useBench.setState({ parts: id })}
        />
      </div>
      <Parts project={project} source={source} parts={parts} />
      <PalettesList source={source} parts={parts} />
    </>
  );
}

/** The source that the frame on the bench is put together from. */
function partsOf(project: Project, frame: Frame | null): Source | undefined {
  const of = frame?.pieces?.at(-1)?.of;
  return of === undefined ? undefined : findFrame(project, of)?.source;
}

/** Screen size of a piece shown small, in px: at most twice its own size. */
const small = (side: number) => Math.max(40, Math.min(72, side * 2));

function Parts({ project, source, parts }: { project: Project; source: Source; parts: Source }) {
  const hand = useBench((bench) => bench.hand);
  const shown = useBench((bench) => bench.shown);
  const zoom = useBench((bench) => bench.zoom);
  const uses = useMemo(() => usesOfPieces(project), [project]);
  const frames = parts.frames.filter(({ dropped, empty }) => !dropped && !empty);
  return (
    <>
      <ul
        aria-label={t("Pieces")}
        className="check mt-1.5 flex max-h-72 flex-wrap gap-1 overflow-y-auto rounded-box border border-line p-1"
      >
        {frames.map((frame) => {
          const ref = frameRef(parts, frame);
          const told = `on ${counted(uses.get(ref) ?? 0, "frame")}`;
          const isHeld = hand?.of === ref;
          const { w, h } = frameSize(parts, frame);
          return (
            <li key={frame.key}>
              <button
                type="button"
                aria-pressed={isHeld}
                aria-label={`${frameName(parts, frame)}, ${told}`}
                title={`${frameName(parts, frame)}: ${told}`}
                onClick={() => useBench.setState({ hand: isHeld ? null : { of: ref, flip: null, palette: null } })}
                className={`rounded-sm border-2 ${isHeld ? "border-now bg-now-soft" : "border-transparent hover:border-line-strong"}`}
              >
                <FramePicture source={parts} frame={frame} size={shown === "small" ? small(Math.max(w, h)) : Math.max(w, h) * zoom} />
              </button>
            </li>
          );
        })}
      </ul>
      <div className="mt-1 flex items-center justify-between gap-2 px-1.5 text-small text-muted">
        {t("shown")}
        <Select
          label={t("Pieces are shown")}
          value={shown}
          options={[
            ["small", t("small")],
            ["bench", t("as on the bench")],
          ]}
          onChange={(next) => useBench.setState({ shown: next })}
        />
      </div>
      {hand && <Uses project={project} source={source} of={hand.of} />}
      <p className="mt-1 px-1.5 text-small text-muted">{t("Click a piece to take it in hand; X flips it, Esc puts it back.")}</p>
    </>
  );
}

/** Frames that use the piece in hand; they can be picked, to apply the next action to them. */
function Uses({ project, source, of }: { project: Project; source: Source; of: FrameRef }) {
  const found = findFrame(project, of);
  const own = [...usesOfPiece(project, of).keys()].filter((ref) => findFrame(project, ref)?.source.id === source.id);
  if (!found) return null;
  return (
    <div className="mt-1 flex flex-wrap items-center justify-between gap-2 px-1.5 text-small">
      {frameName(found.source, found.frame)}: {own.length === 0 ? t("unused") : t("on {frames}", { frames: counted(own.length, "frame") })}
      {own.length > 0 && (
        <Button className="min-h-7" onClick={() => useView.setState({ picked: own, cursor: own[0] ?? null })}>
          {own.length === 1 ? t("Pick it") : t("Pick them")}
        </Button>
      )}
    </div>
  );
}
