"use client";

import { sheetLook } from "@caravan/core/art";
import { drawFrames, type Meeting, makeEqual, placeFrames, removeFrames } from "@caravan/core/edit";
import { type FrameRef, findFrame, frameRef, type Rect, type Source, sheetOf } from "@caravan/core/model";
import { drawnPart } from "@caravan/core/raster";
import { act } from "../../project/act";
import { currentProject, edit, editInGesture, useProject } from "../../project/open-project";
import { usePicture } from "../../project/pictures";
import { clearPicks, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { useKeys } from "../../ui/keys";
import { sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";

const MEETINGS: readonly (readonly [Meeting, string])[] = [
  ["feet", t("Feet")],
  ["middle", t("Middle")],
  ["origin", t("Origin")],
];

/** What can be done with rectangles that are drawn by hand: fitted, duplicated, made equal, taken away. */
export function HandFields({ source, picked }: { source: Source; picked: readonly FrameRef[] }) {
  const project = useProject((each) => each);
  const cursor = useView((view) => view.cursor);
  const picture = usePicture(sheetLook(source));
  const own = (picked.length > 0 ? picked : cursor ? [cursor] : []).filter((ref) => ref.startsWith(`${source.id}/`));
  const frames = own.flatMap((ref) => {
    const found = findFrame(project, ref);
    return found ? [{ ref, rect: found.frame.rect }] : [];
  });
  const { width, height } = sheetOf(source);
  const place = (change: (rect: Rect) => Rect, gesture: string) => {
    if (frames.length === 0) return;
    sayUnlessDone(editInGesture(`${gesture} ${own.join()}`, placeFrames, new Map(frames.map(({ ref, rect }) => [ref, change(rect)]))));
  };
  const fit = () =>
    picture &&
    sayUnlessDone(
      edit(
        placeFrames,
        new Map(
          frames.flatMap(({ ref, rect }) => {
            const drawn = drawnPart(picture.coverage, rect);
            return drawn ? [[ref, drawn] as const] : [];
          }),
        ),
      ),
    );
  const duplicate = () => {
    const rects = frames.map(({ rect }) => ({ ...rect, x: Math.min(rect.x + rect.w, width - rect.w) }));
    const before = source.frames.length;
    if (!act(drawFrames, source.id, rects)) return;
    // The copies become current.
    pickNew(source, before);
  };
  const remove = () => {
    act(removeFrames, own);
    clearPicks();
  };
  useKeys(t("By hand"), [
    {
      keys: "Alt+ArrowLeft",
      repeats: true,
      label: t("Nudge the frames left"),
      run: () => place((rect) => ({ ...rect, x: Math.max(0, rect.x - 1) }), "nudge"),
    },
    {
      keys: "Alt+ArrowRight",
      repeats: true,
      label: t("Nudge them right"),
      run: () => place((rect) => ({ ...rect, x: Math.min(width - rect.w, rect.x + 1) }), "nudge"),
    },
    {
      keys: "Alt+ArrowUp",
      repeats: true,
      label: t("Nudge them up"),
      run: () => place((rect) => ({ ...rect, y: Math.max(0, rect.y - 1) }), "nudge"),
    },
    {
      keys: "Alt+ArrowDown",
      repeats: true,
      label: t("Nudge them down"),
      run: () => place((rect) => ({ ...rect, y: Math.min(height - rect.h, rect.y + 1) }), "nudge"),
    },
    {
      keys: "Alt+Shift+ArrowLeft",
      repeats: true,
      label: t("Make them narrower"),
      run: () => place((rect) => ({ ...rect, w: Math.max(1, rect.w - 1) }), "size"),
    },
    {
      keys: "Alt+Shift+ArrowRight",
      repeats: true,
      label: t("Make them wider"),
      run: () => place((rect) => ({ ...rect, w: Math.min(width - rect.x, rect.w + 1) }), "size"),
    },
    {
      keys: "Alt+Shift+ArrowUp",
      repeats: true,
      label: t("Make them shorter"),
      run: () => place((rect) => ({ ...rect, h: Math.max(1, rect.h - 1) }), "size"),
    },
    {
      keys: "Alt+Shift+ArrowDown",
      repeats: true,
      label: t("Make them taller"),
      run: () => place((rect) => ({ ...rect, h: Math.min(height - rect.y, rect.h + 1) }), "size"),
    },
    { keys: "f", label: t("Fit to the drawn pixels"), run: () => fit() },
    { keys: "d", label: t("Duplicate"), run: duplicate },
    { keys: "e", label: t("Make equal, feet on one line"), run: () => act(makeEqual, own, "feet") },
    { keys: "Shift+Delete", label: t("Remove the rectangles"), run: remove },
  ]);
  const none = frames.length === 0;
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span className="text-muted">
        {none
          ? t("Drag on the sheet to draw a frame; drag a frame to move it, its edge to resize it.")
          : t("{count} selected:", { count: frames.length })}
      </span>
      {!none && (
        <>
          <Button onClick={() => fit()} hint="F">
            {t("Fit to pixels")}
          </Button>
          <Button onClick={duplicate} hint="D">
            {t("Duplicate")}
          </Button>
          {frames.length > 1 &&
            MEETINGS.map(([meeting, word]) => (
              <Button key={meeting} onClick={() => act(makeEqual, own, meeting)} {...(meeting === "feet" ? { hint: "E" } : {})}>
                {t("Equal, {word} on {word}", { word: word.toLowerCase() })}
              </Button>
            ))}
          <Button onClick={remove}>{t("Remove")}</Button>
        </>
      )}
    </div>
  );
}

function pickNew({ id }: Source, before: number): void {
  const source = currentProject().sources.find((each) => each.id === id);
  if (source) useView.setState({ picked: source.frames.slice(before).map((frame) => frameRef(source, frame)) });
}
