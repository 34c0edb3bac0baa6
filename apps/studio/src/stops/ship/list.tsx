"use client";

import type { Finding } from "@caravan/core/check";
import { useFindings } from "../../project/findings";
import { mendFinding } from "../../project/mend";
import { goToPlace } from "../../project/view";
import { Button } from "../../ui/button";
import { ListHeading } from "../../ui/row-list";

/** What to look at before delivering: each finding with its place and, where there is one, its mending. */
export function List() {
  const findings = useFindings();
  return (
    <>
      <ListHeading title="To look at" count={findings.length} />
      {findings.length === 0 && <p className="px-1.5 text-cactus">Nothing stands in the way.</p>}
      <ul aria-label="Findings" className="flex flex-col gap-2">
        {findings.map((finding) => (
          <FindingCard key={`${finding.code} ${finding.where}`} finding={finding} />
        ))}
      </ul>
    </>
  );
}

const WORDS = { error: "Stops delivery", warning: "Worth a look", note: "Good to know" };

function FindingCard({ finding }: { finding: Finding }) {
  const { severity, where, message, place, mend } = finding;
  return (
    <li className={`rounded-box border border-l-4 border-line bg-raised p-2 ${severity === "error" ? "border-l-brick" : "border-l-lapis"}`}>
      <p className={`text-small font-semibold ${severity === "error" ? "text-brick" : "text-lapis"}`}>{WORDS[severity]}</p>
      <p className="font-semibold break-words">{where}</p>
      <p className="mb-2 text-small">{message}</p>
      <div className="flex flex-wrap gap-1.5">
        <Button onClick={() => goToPlace(place)}>Show</Button>
        {mend && <Button onClick={() => mendFinding(finding)}>{mend.label}</Button>}
      </div>
    </li>
  );
}
