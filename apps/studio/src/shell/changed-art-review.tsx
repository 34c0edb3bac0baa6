"use client";

import { movesInWords } from "@caravan/core/frame-identity";
import { type Frame, type FrameRef, frameName, type Source } from "@caravan/core/model";
import { FramePicture } from "../preview/frame-picture";
import { type ChangedArt, endChangedArt, framesByRef, takeInChangedArt, useChangedArt } from "../project/changed-art";
import { Button } from "../ui/button";
import { inBackground } from "../ui/in-background";
import { sayUnlessDone } from "../ui/notices";
import { SheetDialog } from "../ui/sheet-dialog";

const SHOWN = 24;

/** What changed art does: the same, changed, new, gone, with pictures of before and after, and the clips that it touches. */
export function ChangedArtReview() {
  const art = useChangedArt((state) => state.art);
  if (!art) return null;
  const close = () => endChangedArt();
  const { before, after, changes, clips, drawings } = art;
  const moves = movesInWords(before, after, changes.moved, drawings);
  const take = async (changed: ChangedArt) => {
    const error = await takeInChangedArt(changed);
    sayUnlessDone(error);
  };
  return (
    <SheetDialog
      title={`Changed art of ${before.name}`}
      description={`${changes.same.length} frames the same, ${changes.moved.length > 0 ? `${changes.moved.length} moved, ` : ""}${changes.changed.length} changed, ${changes.added.length} new, ${changes.gone.length} gone.`}
      open
      onClose={close}
    >
      <div className="flex flex-col gap-3">
        {moves.length > 0 && (
          <p>
            {moves.slice(0, 4).join("; ")}
            {moves.length > 4 ? "; others elsewhere" : ""}. Clips, names, origins and marks go with them.
          </p>
        )}
        <Part title="Changed" refs={changes.changed} before={before} after={after} />
        <Part title="New" refs={changes.added} before={null} after={after} />
        <Part title="Gone" refs={changes.gone} before={before} after={null} />
        <p>
          {clips.length === 0
            ? "No clip shows a frame that changed or is gone."
            : `Clips that show them: ${clips.join(", ")}. They keep their steps; what is gone shows as missing until you decide.`}
        </p>
        <div className="flex justify-end gap-2">
          <Button onClick={close}>Keep old art</Button>
          <Button look="now" autoFocus onClick={() => inBackground(take(art))} hint="Enter">
            Use new art
          </Button>
        </div>
      </div>
    </SheetDialog>
  );
}

function Part({ title, refs, before, after }: { title: string; refs: readonly FrameRef[]; before: Source | null; after: Source | null }) {
  if (refs.length === 0) return null;
  const olds = before ? framesByRef(before, refs) : [];
  const news = after ? framesByRef(after, refs) : [];
  const shown = (news.length > 0 ? news : olds).slice(0, SHOWN);
  return (
    <section aria-label={title}>
      <h3 className="mb-1 font-semibold text-muted">
        {title} · {refs.length}
        {refs.length > SHOWN ? `, the first ${SHOWN}` : ""}
      </h3>
      <ul className="flex flex-wrap gap-2">
        {shown.map((frame) => (
          <li key={frame.key} className="rounded-box border border-line bg-raised p-1 text-center text-small">
            <span className="flex items-center gap-1">
              <Still source={before} frame={olds.find(({ key }) => key === frame.key)} />
              {before && after && <span aria-hidden>→</span>}
              <Still source={after} frame={news.find(({ key }) => key === frame.key)} />
            </span>
            {frameName((after ?? before) as Source, frame)}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Still({ source, frame }: { source: Source | null; frame: Frame | undefined }) {
  if (!source || !frame) return null;
  return (
    <span className="check block overflow-hidden rounded-sm">
      <FramePicture source={source} frame={frame} size={56} className="block" />
    </span>
  );
}
