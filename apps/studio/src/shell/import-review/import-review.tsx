"use client";

import type { ArrivedAction } from "@caravan/core/edit";
import { type Choices, type Proposal, proposedActions } from "@caravan/core/intake";
import { useMemo, useState } from "react";
import { useFacingOrder } from "../../project/facing-order";
import { bringIn, forgetRefused } from "../../project/import-files";
import { endReview, useReview } from "../../project/importing/review";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { inBackground } from "../../ui/in-background";
import { SheetDialog } from "../../ui/sheet-dialog";
import { t } from "../../ui/words";
import { ProposalRow } from "./proposal-row";
import { ProposedActions } from "./proposed-actions";

/** Lists everything in one drop with Caravan's proposal for it. One button imports it, one undo takes it back. */
export function ArrivalReview() {
  const proposals = useReview((state) => state.proposals);
  const drop = useReview((state) => state.drop);
  return proposals && <Review key={drop} proposals={proposals} />;
}

function Review({ proposals }: { proposals: readonly Proposal[] }) {
  const [choices, setChoices] = useState<ReadonlyMap<string, Choices>>(new Map());
  const [wanted, setWanted] = useState<ReadonlyMap<string, boolean>>(new Map());
  const order = useFacingOrder();
  const choicesOf = ({ id, usual }: Proposal) => choices.get(id) ?? usual;
  // biome-ignore lint/correctness/useExhaustiveDependencies: `choicesOf` is nothing but the choices
  const actions = useMemo(() => proposedActions(proposals, choicesOf, order), [proposals, choices, order]);
  const isWanted = ({ id, usual }: (typeof actions)[number]) => wanted.get(id) ?? usual;
  const choose = (proposal: Proposal, change: Partial<Choices>) =>
    setChoices(new Map(choices).set(proposal.id, { ...choicesOf(proposal), ...change }));
  const known = proposals.filter((proposal) => proposal.known !== undefined);
  const count = proposals.filter((proposal) => choicesOf(proposal).include).length;
  const close = () => {
    endReview();
    inBackground(forgetRefused(proposals));
  };
  const bring = () => {
    const made: ArrivedAction[] = actions.filter(isWanted).map(({ action }) => action);
    endReview(bringIn(proposals, choicesOf, made));
  };
  return (
    <SheetDialog
      title={t("Import review")}
      description={t("This is what Caravan proposes. Change what you like; one undo takes back all of it.")}
      open
      arrives
      onClose={close}
      onEnter={() => count > 0 && bring()}
    >
      {actions.length > 0 && (
        <ProposedActions actions={actions} isWanted={isWanted} onWant={(id, yes) => setWanted(new Map(wanted).set(id, yes))} />
      )}
      {known.length > 1 && (
        <div className="mb-3 flex flex-wrap items-center gap-3">
          <span className="text-muted">{t("{count} have the name of a source:", { count: known.length })}</span>
          <Choice
            label={t("What all {count} are", { count: known.length })}
            value={known.every((each) => choicesOf(each).replaces) ? "replaces" : "new"}
            options={[
              ["replaces", t("New art for them")],
              ["new", t("New sources")],
            ]}
            onChange={(way) => {
              const next = new Map(choices);
              for (const each of known) next.set(each.id, { ...choicesOf(each), replaces: way === "replaces" });
              setChoices(next);
            }}
          />
        </div>
      )}
      <ul aria-label={t("Files")} className="flex flex-col gap-2.5">
        {proposals.map((proposal) => (
          <ProposalRow
            key={proposal.id}
            proposal={proposal}
            choices={choicesOf(proposal)}
            onChange={(change) => choose(proposal, change)}
          />
        ))}
      </ul>
      <div className="sticky -bottom-4 mt-3 -mb-4 flex justify-end gap-2 bg-paper pt-2 pb-4">
        <Button onClick={close}>{t("Cancel")}</Button>
        <Button look="now" autoFocus disabled={count === 0} onClick={bring} hint="Enter">
          {count === proposals.length ? t("Import") : t("Import {count} of {proposals}", { count, proposals: proposals.length })}
        </Button>
      </div>
    </SheetDialog>
  );
}
