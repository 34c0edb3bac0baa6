"use client";

import { type Finding, mendsOf, type Place } from "@caravan/core/check";
import { Button } from "../ui/button";
import { useCountFrom } from "../ui/counting";
import { Detail } from "../ui/detail";
import { t } from "../ui/words";
import { useFindings } from "./findings";
import { mendFinding } from "./mend";
import { useView } from "./view";

/** Shows the findings at a place of a stop. */
export function PlaceFindings({ label, at }: { label: string; at: (place: Place) => boolean }) {
  const findings = (useFindings() ?? []).filter(({ place }) => at(place));
  if (findings.length === 0) return null;
  return (
    <Detail title={t("Worth a look")} aside={String(findings.length)}>
      <ul aria-label={label} className="flex flex-col gap-2">
        {findings.map((finding) => (
          <OneFinding key={`${finding.code} ${finding.message}`} finding={finding} />
        ))}
      </ul>
    </Detail>
  );
}

function OneFinding({ finding }: { finding: Finding }) {
  const { severity, message, messageFrom, place } = finding;
  const from = useCountFrom();
  const steps = "clip" in place ? (place.steps ?? []) : [];
  return (
    <li className={`border-l-4 pl-2 ${severity === "error" ? "border-brick" : "border-lapis"}`}>
      <p className="mb-1 text-small">{messageFrom?.(from) ?? message}</p>
      <div className="flex flex-wrap gap-1.5">
        {steps.length > 0 && (
          <Button className="min-h-6" onClick={() => useView.setState({ steps })}>
            {steps.length === 1 ? t("Select it") : t("Select them")}
          </Button>
        )}
        {mendsOf(finding).map((mend) => (
          <Button key={mend.label} className="min-h-6" onClick={() => mendFinding({ ...finding, mend })}>
            {mend.label}
          </Button>
        ))}
      </div>
    </li>
  );
}
