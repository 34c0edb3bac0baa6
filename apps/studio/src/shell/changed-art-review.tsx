"use client";

import { scaleInWords } from "@caravan/core/art";
import { counted, type Frame, type FrameRef, frameName, type Source, scaleOf } from "@caravan/core/model";
import { useState } from "react";
import { FramePicture } from "../preview/frame-picture";
import { endChangedArt, framesByRef, takeInChangedArt } from "../project/changed-art/review";
import { type ChangedArt, useChangedArt } from "../project/changed-art/reviewing";
import { AS_BEFORE, type WayIn } from "../project/changed-art/ways";
import { newsInWords } from "../project/clip-news";
import { Button } from "../ui/button";
import { Choice } from "../ui/choice";
import { inBackground } from "../ui/in-background";
import { sayUnlessDone } from "../ui/notices";
import { SheetDialog } from "../ui/sheet-dialog";
import { facts, t } from "../ui/words";
import { AlternatingSheets } from "./alternating-sheets";

const SHOWN = 24;

/** What changed art does: the same, changed, new, gone, with pictures of before and after, and the clips that it touches. */
export function ChangedArtReview() {
  const art = useChangedArt((state) => state.art);
  return art && <Review key={art.before.id} art={art} />;
}

function Review({ art }: { art: ChangedArt }) {
  const more = useChangedArt((state) => state.more);
  const [chosen, setChosen] = useState(0);
  const { before, file, ways } = art;
  const way = ways[chosen] ?? ways[0];
  const { after, changes, clips, news } = way;
  const { sentences, isUnlike } = newsInWords(news, { name: file, kind: "animation" });
  const take = async (all: boolean) => {
    if (all) useChangedArt.setState({ all: true });
    sayUnlessDone(await takeInChangedArt(art, way));
  };
  return (
    <SheetDialog
      title={t("Changed art of {name}", { name: before.name })}
      description={
        changes.moved.length > 0
          ? t("{same} the same, {moved} moved, {changed} changed, {added} new, {gone} gone.", {
              same: counted(changes.same.length, "frame"),
              changed: changes.changed.length,
              added: changes.added.length,
              gone: changes.gone.length,
              moved: changes.moved.length,
            })
          : t("{same} the same, {changed} changed, {added} new, {gone} gone.", {
              same: counted(changes.same.length, "frame"),
              changed: changes.changed.length,
              added: changes.added.length,
              gone: changes.gone.length,
            })
      }
      open
      arrives
      onClose={() => endChangedArt()}
      onEnter={() => inBackground(take(false))}
    >
      <div className="flex flex-col gap-3">
        {ways.length === 1 && way.words !== AS_BEFORE && <p className="font-semibold">{way.words}.</p>}
        {ways.length > 1 && (
          <div>
            <Choice
              label={t("How to use it")}
              stacked
              value={String(chosen)}
              options={ways.map(({ words }, k) => [String(k), words] as const)}
              onChange={(next) => setChosen(Number(next))}
            />
            <p className="mt-1 text-small text-muted">{usedHow(way)}</p>
          </div>
        )}
        {before.pictures.length === 1 && (changes.moved.length > 0 || way.grid) && <AlternatingSheets before={before} after={after} />}
        <Part title={t("Changed")} refs={changes.changed} before={before} after={after} />
        <Part title={t("New")} refs={changes.added} before={null} after={after} />
        <Part title={t("Gone")} refs={changes.gone} before={before} after={null} />
        {sentences.map((sentence) => (
          <p key={sentence} className={isUnlike ? "font-semibold text-brick" : ""}>
            {sentence}
          </p>
        ))}
        {clips.length > 0 ? (
          <p>
            {t("Clips that show them: {clips}. They keep their steps; what is gone shows as missing until you decide.", {
              clips: clips.join(", "),
            })}
          </p>
        ) : (
          sentences.length === 0 && <p>{t("No clip uses a changed or removed frame.")}</p>
        )}
        <div className="sticky -bottom-4 -mb-4 flex justify-end gap-2 bg-paper pt-2 pb-4">
          <Button onClick={() => endChangedArt()}>{t("Keep old art")}</Button>
          {more > 0 && (
            <Button onClick={() => inBackground(take(true))} title={t("Asks again only if frames would be lost")}>
              {t("Use all new art ({more} sources)", { more: more + 1 })}
            </Button>
          )}
          <Button look="now" autoFocus onClick={() => inBackground(take(false))} hint="Enter">
            {t("Use new art")}
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
        {facts(title, refs.length > SHOWN ? t("{count}, the first {shown}", { count: refs.length, shown: SHOWN }) : refs.length)}
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

function usedHow({ drawings, times, after }: WayIn): string {
  if (times !== null)
    return t("Its scale becomes {scale}; a larger one, set at Sources, makes it larger in the game.", {
      scale: scaleInWords(scaleOf(after)),
    });
  return drawings
    ? t("Frames go with what is drawn in them: clips, names, origins and marks go along.")
    : t("Frames stay where they are on the sheet, and show what is drawn there now.");
}
