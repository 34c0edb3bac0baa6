"use client";

import { addMarkKind, framesOfClips } from "@caravan/core/edit";
import {
  type Clip,
  type ClipName,
  findFrame,
  freeName,
  keptRefs,
  type MarkKind,
  type MarkName,
  type Project,
  type SourceId,
} from "@caravan/core/model";
import { chosenReel } from "../../preview/reel";
import { act } from "../../project/act";
import { currentProject, useProject } from "../../project/open-project";
import { chooseClip, chooseReelSource, chosenMark, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { ListHeading, RowList } from "../../ui/row-list";

const ORIGIN = "origin";

/** The origin and all kinds of boxes and points, with on how many frames of the chosen clip or source they are; then the clips, and the sources, of which some frames may be in no clip. */
export function List() {
  const project = useProject((each) => each);
  const clip = useView((view) => chosenReel(project, view)?.clip ?? null);
  const source = useView((view) => chosenReel(project, view)?.source ?? null);
  const cut = project.sources.filter((each) => keptRefs(each).length > 0);
  const kind = useView((view) => chosenMark(project, view));
  const rows = project.marks.map((each) => ({
    id: idOf(each),
    name: each.name,
    fact: <KindFact project={project} kind={each} clip={clip} />,
  }));
  return (
    <>
      <ListHeading title="Marks" count={project.marks.length} />
      <RowList
        label="Marks"
        rows={[{ id: ORIGIN, name: "Origin", fact: "+" }, ...rows]}
        chosen={kind ? idOf(kind) : ORIGIN}
        onChoose={(id) => useView.setState({ markName: project.marks.find((each) => idOf(each) === id)?.name ?? null })}
      />
      <div className="mt-3 mb-5 flex flex-wrap gap-2 px-1.5">
        <Button onClick={() => addKind("box")}>New boxes</Button>
        <Button onClick={() => addKind("point")}>New points</Button>
      </div>
      <ListHeading title="Clips" count={project.clips.length} />
      <RowList
        label="Clips"
        rows={project.clips.map(({ name, steps }) => ({ id: name, name, fact: String(steps.length) }))}
        chosen={source ? null : (clip?.name ?? null)}
        onChoose={(name) => chooseClip(name as ClipName)}
      />
      <div className="mt-4">
        <ListHeading title="Sources" count={cut.length} />
        <RowList
          label="Sources"
          rows={cut.map((each) => ({ id: each.id, name: each.name, fact: String(keptRefs(each).length) }))}
          chosen={source?.id ?? null}
          onChoose={(id) => chooseReelSource(id as SourceId)}
        />
      </div>
    </>
  );
}

/** A kind may be called as the origin is. */
function idOf({ name }: MarkKind): string {
  return `kind ${name}`;
}

const FIRST_NAMES = { box: "body", point: "hand" };

/** Adds a kind under a name that waits to be typed over. */
function addKind(shape: MarkKind["shape"]): void {
  const { marks } = currentProject();
  const name = freeName(FIRST_NAMES[shape], new Set(marks.map((each) => each.name)));
  if (act(addMarkKind, shape, name)) useView.setState({ markName: name as MarkName, naming: true });
}

function KindFact({ project, kind, clip }: { project: Project; kind: MarkKind; clip: Clip | null }) {
  const frames = framesOfClips(clip ? [clip] : []).flatMap((ref) => findFrame(project, ref)?.frame ?? []);
  const having = frames.filter(({ marks }) => marks?.boxes?.[kind.name] ?? marks?.points?.[kind.name]);
  return (
    <>
      {having.length > 0 && `${having.length}/${frames.length} `}
      <Tag kind={kind} />
    </>
  );
}

/** A kind's letter, square for boxes and round for points. */
function Tag({ kind: { letter, shape } }: { kind: MarkKind }) {
  return (
    <span
      aria-hidden
      className={`inline-flex size-4.5 items-center justify-center border border-current font-semibold ${shape === "box" ? "rounded-xs" : "rounded-full"}`}
    >
      {letter}
    </span>
  );
}
