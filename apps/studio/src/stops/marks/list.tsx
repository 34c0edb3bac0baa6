"use client";

import type { SeenOutlines } from "@caravan/core/check";
import { addMarkKind, removeMarkKind } from "@caravan/core/edit";
import { withOutlines } from "@caravan/core/marks";
import {
  type Clip,
  type ClipName,
  FIELD_OF_SHAPE,
  findFrame,
  framesOfClips,
  freeName,
  keptRefs,
  MARK_SHAPES,
  type MarkKind,
  type MarkName,
  type MarkShape,
  type Project,
  type SourceId,
} from "@caravan/core/model";
import { useMemo } from "react";
import { chosenReel } from "../../preview/reel";
import { act } from "../../project/act";
import { currentProject, useProject } from "../../project/open-project";
import { useSeenArt } from "../../project/seen-art";
import { chooseClip, chooseReelSource, chosenMark, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { ListHeading, type Row, RowList, rowAt } from "../../ui/row-list";
import { type Menu, WithMenu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { SHAPES } from "./shapes";

const ORIGIN = "origin";

/**
 * The origin and all kinds of boxes, points and outlines, with on how many frames of the chosen clip or source they are; then the clips, and the
 * sources, of which some frames may be in no clip.
 */
export function List() {
  const project = useProject((each) => each);
  const clip = useView((view) => chosenReel(project, view)?.clip ?? null);
  const source = useView((view) => chosenReel(project, view)?.source ?? null);
  const cut = useMemo(() => cutSources(project.sources), [project.sources]);
  const kind = useView((view) => chosenMark(project, view));
  const outlines = useSeenArt((seen) => seen.outlines);
  const { frames, having } = useMemo(() => countedKinds(project, clip, outlines), [project, clip, outlines]);
  const rows = project.marks.map((each) => ({ id: idOf(each), name: each.name, fact: factOf(each, having.get(each.name) ?? 0, frames) }));
  return (
    <>
      <ListHeading title={t("Marks")} count={project.marks.length} />
      <WithMenu label={t("Marks menu")} menuOf={(target) => kindMenu(project, rowAt(target))}>
        <div>
          <RowList
            label={t("Marks")}
            rows={[{ id: ORIGIN, name: t("Origin"), fact: "+" }, ...rows]}
            chosen={kind ? idOf(kind) : ORIGIN}
            onChoose={(id) => useView.setState({ markName: project.marks.find((each) => idOf(each) === id)?.name ?? null })}
          />
        </div>
      </WithMenu>
      <div className="mt-3 mb-5 flex flex-wrap gap-2 px-1.5">
        {MARK_SHAPES.map((shape) => (
          <Button key={shape} onClick={() => addKind(shape)}>
            {t("New {several}", { several: SHAPES[shape].several })}
          </Button>
        ))}
      </div>
      <ListHeading title={t("Clips")} count={project.clips.length} />
      <RowList
        label={t("Clips")}
        rows={project.clips.map(({ name, steps }) => ({ id: name, name, fact: String(steps.length) }))}
        chosen={source ? null : (clip?.name ?? null)}
        onChoose={(name) => chooseClip(name as ClipName)}
      />
      <div className="mt-4">
        <ListHeading title={t("Sources")} count={cut.length} />
        <RowList label={t("Sources")} rows={cut} chosen={source?.id ?? null} onChoose={(id) => chooseReelSource(id as SourceId)} />
      </div>
    </>
  );
}

function kindMenu({ marks }: Project, id: string | undefined): Menu | null {
  const kind = marks.find((each) => idOf(each) === id);
  if (!kind) return null;
  useView.setState({ markName: kind.name });
  return [
    { label: t("Rename"), run: () => useView.setState({ naming: true }) },
    null,
    { label: t("Remove with all its marks"), run: () => act(removeMarkKind, kind.name) && useView.setState({ markName: null }) },
  ];
}

/** A kind may be called as the origin is. */
function idOf({ name }: MarkKind): string {
  return `kind ${name}`;
}

/** Adds a kind under a name that waits to be typed over. */
function addKind(shape: MarkShape): void {
  const { marks } = currentProject();
  const name = freeName(SHAPES[shape].firstName, new Set(marks.map((each) => each.name)));
  if (act(addMarkKind, shape, name)) useView.setState({ markName: name as MarkName, naming: true });
}

function cutSources(sources: Project["sources"]): Row[] {
  return sources.flatMap((source) => {
    const kept = keptRefs(source).length;
    return kept > 0 ? [{ id: source.id, name: source.name, fact: String(kept) }] : [];
  });
}

/** On how many of the clip's frames each kind is, in one go through them. */
function countedKinds(
  project: Project,
  clip: Clip | null,
  outlines: SeenOutlines,
): { readonly frames: number; readonly having: ReadonlyMap<string, number> } {
  const refs = framesOfClips(clip ? [clip] : []).filter((ref) => findFrame(project, ref));
  const having = new Map<string, number>();
  for (const ref of refs) {
    const marks = withOutlines(findFrame(project, ref)?.frame.marks, outlines.get(ref));
    for (const name of MARK_SHAPES.flatMap((shape) => Object.keys(marks?.[FIELD_OF_SHAPE[shape]] ?? {})))
      having.set(name, (having.get(name) ?? 0) + 1);
  }
  return { frames: refs.length, having };
}

function factOf(kind: MarkKind, having: number, frames: number) {
  return (
    <>
      {having > 0 && `${having}/${frames} `}
      <Tag kind={kind} />
    </>
  );
}

/** A kind's letter, in the form of its shape. */
function Tag({ kind: { letter, shape } }: { kind: MarkKind }) {
  return (
    <span
      aria-hidden
      className={`inline-flex size-4.5 items-center justify-center border border-current font-semibold ${SHAPES[shape].tag}`}
    >
      {letter}
    </span>
  );
}
