"use client";

import { clipAcross, copyMarksMirrored, fillPoint } from "@caravan/core/edit";
import { hasMark } from "@caravan/core/marks";
import { type Clip, findFrame, type MarkKind } from "@caravan/core/model";
import { act } from "../../project/act";
import { useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { t } from "../../ui/words";

/** Edits marks of a kind along a clip: copies them to the opposite facing, and fills in steps without the point. */
export function AlongClip({ kind, clip }: { kind: MarkKind; clip: Clip }) {
  const project = useProject((each) => each);
  const marks = clip.steps.map(({ frame }) => findFrame(project, frame)?.frame.marks);
  const having = marks.filter((each) => hasMark(each, kind.name)).length;
  const across = having > 0 ? clipAcross(project, clip.name) : null;
  const lacks = kind.shape === "point" && having > 0 ? clip.steps.length - having : 0;
  if (across === null && lacks === 0) return null;
  return (
    <section aria-label={t("Along the clip")} className="flex w-64 shrink-0 flex-wrap gap-1.5">
      {lacks > 0 && (
        <Button className="max-w-full whitespace-normal! text-left" onClick={() => act(fillPoint, clip.name, kind.name)}>
          {lacks === 1 ? t("Fill in the missing step") : t("Fill in the {lacks} missing steps", { lacks })}
        </Button>
      )}
      {across !== null && (
        <Button className="max-w-full whitespace-normal! text-left" onClick={() => act(copyMarksMirrored, kind.name, clip.name, across)}>
          {t("Copy to {across}, mirrored", { across })}
        </Button>
      )}
    </section>
  );
}

/** The note under a step that lacks the selected mark although others have it. */
export function useLacking(kind: MarkKind | null, clip: Clip): ((step: number) => boolean) | null {
  const project = useProject((each) => each);
  if (!kind || (kind.shape === "outline" && kind.trace)) return null;
  const has = clip.steps.map(({ frame }) => hasMark(findFrame(project, frame)?.frame.marks, kind.name));
  return has.includes(true) && has.includes(false) ? (step) => has[step] === false : null;
}
