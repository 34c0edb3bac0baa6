"use client";

import type { Finding, Place } from "@caravan/core/check";
import type { Clip } from "@caravan/core/model";
import { useFindings } from "../../project/findings";
import { mendFinding } from "../../project/mend";
import { useView } from "../../project/view";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";

/** What looks wrong about the chosen clip, each with its steps and its mending. */
export function ClipFindings({ clip }: { clip: Clip }) {
  return <PlaceFindings label="Findings on this clip" at={(place) => "clip" in place && place.clip === clip.name} />;
}

/** The findings at a place of this stop. */
export function PlaceFindings({ label, at }: { label: string; at: (place: Place) => boolean }) {
  const findings = useFindings().filter(({ place }) => at(place));
  if (findings.length === 0) return null;
  return (
    <Detail title="Worth a look" aside={String(findings.length)}>
      <ul aria-label={label} className="flex flex-col gap-2">
        {findings.map((finding) => (
          <ClipFinding key={finding.code} finding={finding} />
        ))}
      </ul>
    </Detail>
  );
}

function ClipFinding({ finding }: { finding: Finding }) {
  const { severity, message, place, mend } = finding;
  const steps = "clip" in place ? (place.steps ?? []) : [];
  return (
    <li className={`border-l-4 pl-2 ${severity === "error" ? "border-brick" : "border-lapis"}`}>
      <p className="mb-1 text-small">{message}</p>
      <div className="flex flex-wrap gap-1.5">
        {steps.length > 0 && (
          <Button className="min-h-6" onClick={() => useView.setState({ steps })}>
            Choose {steps.length === 1 ? "it" : "them"}
          </Button>
        )}
        {mend && (
          <Button className="min-h-6" onClick={() => mendFinding(finding)}>
            {mend.label}
          </Button>
        )}
      </div>
    </li>
  );
}
