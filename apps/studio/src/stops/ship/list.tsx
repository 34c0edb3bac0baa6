"use client";

import { type Finding, findingsOf } from "@caravan/core/check";
import { useMemo } from "react";
import { mendFinding } from "../../project/mend";
import { useProject } from "../../project/open-project";
import { chooseClip, go, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { ListHeading } from "../../ui/row-list";

/** What to look at before delivering: each finding with its place and, where there is one, its mending. */
export function List() {
  const project = useProject((each) => each);
  const findings = useMemo(() => findingsOf(project), [project]);
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
  const show = () => {
    if (place.stop === "clips") {
      chooseClip(place.clip);
      useView.setState({ steps: place.steps ?? [] });
    }
    if (place.stop === "frames") {
      const [source] = place.frame.split("/");
      useView.setState({ sourceId: source as never, cursor: place.frame });
    }
    go(place.stop);
  };
  return (
    <li className={`rounded-box border border-l-4 border-line bg-raised p-2 ${severity === "error" ? "border-l-brick" : "border-l-lapis"}`}>
      <p className={`text-small font-semibold ${severity === "error" ? "text-brick" : "text-lapis"}`}>{WORDS[severity]}</p>
      <p className="font-semibold break-words">{where}</p>
      <p className="mb-2 text-small">{message}</p>
      <div className="flex flex-wrap gap-1.5">
        <Button onClick={show}>Show</Button>
        {mend && <Button onClick={() => mendFinding(finding)}>{mend.label}</Button>}
      </div>
    </li>
  );
}
