"use client";

import { addsFacings, framesByNames, makeActionsByNames } from "@caravan/core/edit";
import { type MatchedAction, matchFacings } from "@caravan/core/facing";
import { type ActionName, type ClipName, FACINGS_OF } from "@caravan/core/model";
import { useMemo, useState } from "react";
import { FacingOrderFields } from "../../../preview/facing-order-fields";
import { act } from "../../../project/act";
import { useFacingOrder } from "../../../project/facing-order";
import { useProject } from "../../../project/open-project";
import { chooseAction } from "../../../project/view";
import { Button } from "../../../ui/button";
import { SheetDialog } from "../../../ui/sheet-dialog";
import { Tick } from "../../../ui/tick";
import { t } from "../../../ui/words";

/**
 * Makes actions from clips whose names contain a facing, and from sources and frames named like that, which become clips. Shows the matches
 * before applying them.
 */
export function ByNames({ onClose }: { onClose: () => void }) {
  const project = useProject((each) => each);
  const frames = useMemo(() => framesByNames(project), [project]);
  const from = useFacingOrder();
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const all = useMemo(
    () => matchFacings([...project.clips.map(({ name }) => name), ...frames.map(({ name }) => name as ClipName)], from),
    [project.clips, frames, from],
  );
  const matched = all.filter((each) => addsFacings(project, each));
  const made = all.filter((each) => !matched.includes(each)).map(({ stem }) => stem);
  const chosen = matched.filter(({ stem }) => !without.has(stem));
  const make = () => {
    if (!act(makeActionsByNames, chosen, frames)) return;
    onClose();
    const [first] = chosen;
    if (first) chooseAction(first.stem as ActionName);
  };
  const toggle = (stem: string) =>
    setWithout((before) => {
      const next = new Set(before);
      if (!next.delete(stem)) next.add(stem);
      return next;
    });
  return (
    <SheetDialog
      title={t("Actions by names")}
      description={t("Clips, sources or frames whose names end or begin with a facing: letters of the compass, words, or numbers.")}
      open
      onClose={onClose}
    >
      {all.length === 0 && (
        <p>
          {t(
            "No two clips or sources have names that differ only in a facing, such as walk_s and walk_se, idleLeft and idleRight, or turn0 to turn7.",
          )}
        </p>
      )}
      {made.length > 0 && (
        <p className="mb-3 text-muted">{t("Already made, with all these facings: {names}.", { names: made.join(", ") })}</p>
      )}
      {matched.length > 0 && (
        <>
          <ul aria-label={t("Matched actions")} className="flex flex-col gap-2.5">
            {matched.map((each) => (
              <li key={each.stem} className="rounded-box border border-line bg-raised px-3 py-2">
                <Tick
                  label={
                    each.byNumber
                      ? t("{stem}, {ways} ways, by number", { stem: each.stem, ways: each.ways })
                      : t("{stem}, {ways} ways", { stem: each.stem, ways: each.ways })
                  }
                  checked={!without.has(each.stem)}
                  onChange={() => toggle(each.stem)}
                />
                <MatchedFacings matched={each} />
              </li>
            ))}
          </ul>
          <div className="mt-4 flex flex-wrap items-center justify-between gap-3">
            {matched.some(({ byNumber }) => byNumber) ? <FacingOrderFields /> : <span />}
            <Button look="now" onClick={make} disabled={chosen.length === 0}>
              {chosen.length === 1 ? t("Make the action") : t("Make {count} actions", { count: chosen.length })}
            </Button>
          </div>
        </>
      )}
    </SheetDialog>
  );
}

function MatchedFacings({ matched }: { matched: MatchedAction<ClipName> }) {
  return (
    <dl className="mt-1 flex flex-wrap gap-x-4 gap-y-0.5">
      {FACINGS_OF[matched.ways].map((facing) => (
        <div key={facing} className="flex gap-1.5">
          <dt className="font-semibold">{facing.toUpperCase()}</dt>
          <dd className={matched.facings[facing] ? "" : "text-muted"}>{matched.facings[facing] ?? t("missing")}</dd>
        </div>
      ))}
    </dl>
  );
}
