"use client";

import type { Finding } from "@caravan/core/check";
import { addDelivery, freeDeliveryName, removeDelivery } from "@caravan/core/edit";
import type { Delivery } from "@caravan/core/model";
import { useFindings } from "../../project/findings";
import { mendFinding } from "../../project/mend";
import { edit, useProject } from "../../project/open-project";
import { chosenDelivery, goToPlace, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { ListHeading, RowList } from "../../ui/row-list";

/** The deliveries, and what to look at before them: each finding with its place and, where there is one, its mending. */
export function List() {
  const findings = useFindings();
  return (
    <>
      <Deliveries />
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

function Deliveries() {
  const project = useProject((each) => each);
  const chosen = useView((view) => chosenDelivery(project, view));
  const { deliveries } = project;
  const add = () => {
    const problem = edit(addDelivery, freeDeliveryName(project, "delivery"), null);
    if (!problem) useView.setState({ delivery: deliveries.length });
  };
  return (
    <div className="mb-4">
      <ListHeading title="Deliveries" count={deliveries.length} />
      <RowList
        label="Deliveries"
        rows={deliveries.map(({ name, kind }, k) => ({ id: String(k), name, fact: KIND_WORDS[kind] }))}
        chosen={String(chosen)}
        onChoose={(id) => useView.setState({ delivery: Number(id) })}
      />
      <div className="mt-1.5 flex flex-wrap gap-1.5 px-1.5">
        <Button onClick={add}>Add a delivery</Button>
        {deliveries.length > 1 && <Button onClick={() => edit(removeDelivery, chosen)}>Remove it</Button>}
      </div>
    </div>
  );
}

const KIND_WORDS: Record<Delivery["kind"], string> = { atlas: "pages", grid: "grid", strips: "strips", singles: "single", films: "films" };

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
        {mend && (
          <Button className="whitespace-normal text-left" onClick={() => mendFinding(finding)}>
            {mend.label}
          </Button>
        )}
      </div>
    </li>
  );
}
