"use client";

import type { FrameFinding, FrameFindingCode, Repeats } from "@caravan/core/check";
import { dropFrames, keepFirstOf, makeEqual, mirrorInstead } from "@caravan/core/edit";
import { type Clearing, keptRefs, type Project, type Source } from "@caravan/core/model";
import { act } from "../../project/act";
import { clearSource } from "../../project/clear-source";
import { useInspecting, useInspection } from "../../project/inspection";
import { useProject } from "../../project/open-project";
import { useView } from "../../project/view";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { inBackground } from "../../ui/in-background";
import { t } from "../../ui/words";

import { cutAlongOutlines } from "./along-outlines";

/** Lists findings on the frames, each with ways to see and to mend it. */
export function WorthALook({ source }: { source: Source }) {
  useInspecting(source);
  const inspection = useInspection(source);
  if (!inspection || inspection.findings.length === 0) return null;
  return (
    <Detail title={t("Worth a look")} aside={String(inspection.findings.length)}>
      <ul id={LIST} aria-label={t("Findings on these frames")} className="flex flex-col gap-2">
        {inspection.findings.map((finding) => (
          <Finding key={finding.code} source={source} finding={finding} repeats={inspection.repeats} />
        ))}
      </ul>
    </Detail>
  );
}

const LIST = "frame-findings";

/** The number of findings, beside the outcome of the cut; links to them. */
export function WorthALookLink({ source }: { source: Source }) {
  const count = useInspection(source)?.findings.length ?? 0;
  if (count === 0) return null;
  return (
    <Button
      look="quiet"
      className="min-h-6 shrink-0 text-lapis"
      onClick={() => document.getElementById(LIST)?.scrollIntoView({ block: "center" })}
    >
      {t("{count} worth a look", { count })}
    </Button>
  );
}

const TITLES: Record<FrameFindingCode, string> = {
  "cut-through": t("Cut through"),
  "empty-frames": t("Empty"),
  specks: t("Specks"),
  "odd-sizes": t("Odd sizes"),
  repeats: t("Repeats"),
  "mirrored-repeats": t("Mirrored repeats"),
};

interface FindingProps {
  readonly source: Source;
  readonly finding: FrameFinding;
  readonly repeats: Repeats;
}

function Finding({ source, finding, repeats }: FindingProps) {
  const { code, message, frames } = finding;
  const project = useProject((each) => each);
  const mend = mendingOf(project, source, finding, repeats);
  const show = () => useView.setState({ picked: [...frames], cursor: frames[0] ?? null });
  return (
    <li className="border-l-4 border-lapis pl-2">
      <p className="font-semibold">{TITLES[code]}</p>
      <p className="mb-1 text-small">{message}</p>
      <div className="flex flex-wrap gap-1.5">
        <Button className="min-h-6" onClick={show}>
          {frames.length === 1 ? t("Pick it") : t("Pick them")}
        </Button>
        {mend && (
          <Button className="min-h-6" onClick={mend.run}>
            {mend.label}
          </Button>
        )}
      </div>
    </li>
  );
}

function mendingOf(
  project: Project,
  source: Source,
  { code, frames }: FrameFinding,
  { same, mirrored }: Repeats,
): { label: string; run: () => void } | null {
  switch (code) {
    case "cut-through":
      return { label: t("Cut along outlines"), run: () => inBackground(cutAlongOutlines(source, null)) };
    case "empty-frames":
      return { label: frames.length === 1 ? t("Drop it") : t("Drop them"), run: () => act(dropFrames, frames) };
    case "specks":
      return { label: t("Clear these pixels"), run: () => inBackground(clearSource(source, withSpecks)) };
    case "odd-sizes":
      return { label: t("Make all equal, feet on feet"), run: () => act(makeEqual, keptRefs(source), "feet") };
    case "repeats":
      return { label: t("Use the first of each"), run: () => act(keepFirstOf, same) };
    case "mirrored-repeats":
      // Clips outside of actions keep their mirrored art: only an action says which facing it is.
      if (mirrorInstead(project, mirrored) === project) return null;
      return { label: t("Use mirrors instead"), run: () => act(mirrorInstead, mirrored) };
  }
}

function withSpecks({ clearing }: Source): Clearing {
  return { colours: [], tolerance: 0, from: "edges", fringe: false, ...clearing, specks: 1 };
}
