"use client";

import { actionToBe } from "@caravan/core/edit";
import type { ProposedAction } from "@caravan/core/intake";
import { type Action, type ClipName, FACINGS_OF, type Facing, type Ways } from "@caravan/core/model";
import { FacingOrderFields } from "../../preview/facing-order-fields";
import { MovingFrames, stillOfShown } from "../../preview/moving-frames";
import { useOpenProject } from "../../project/open-project";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";

/** Shows the proposed actions of a drop, with every facing playing before anything is imported. */
export function ProposedActions({
  actions,
  isWanted,
  onWant,
}: {
  actions: readonly ProposedAction[];
  isWanted: (action: ProposedAction) => boolean;
  onWant: (id: string, wanted: boolean) => void;
}) {
  // Art dropped onto the untouched demo begins a project of its own.
  const existing = useOpenProject(({ demo, project }) => (demo ? NONE : project.actions));
  return (
    <section aria-label={t("Actions")} className="mb-4">
      <ul className="flex flex-col gap-2.5">
        {actions.map((each) => (
          <li
            key={each.id}
            className={`rounded-box border-2 border-lapis bg-raised p-2.5 ${isWanted(each) ? "" : "border-dashed opacity-70"}`}
          >
            <Tick label={inWords(each, existing)} checked={isWanted(each)} onChange={(wanted) => onWant(each.id, wanted)} />
            <dl className="mt-1.5 flex flex-wrap gap-1.5">
              {FACINGS_OF[each.action.ways].map((facing) => {
                const petal = each.petals[facing];
                return (
                  <div key={facing} className="flex w-18 flex-col items-center text-small">
                    <dt className="font-semibold">{facing.toUpperCase()}</dt>
                    <dd className="flex w-full flex-col items-center">
                      {petal ? (
                        <MovingFrames
                          stills={petal.clip.shows.map(stillOfShown)}
                          size={56}
                          mirrored={petal.mirrored}
                          className="check rounded-sm"
                        />
                      ) : (
                        <span className="flex size-14 items-center justify-center rounded-sm border border-dashed border-line-strong" />
                      )}
                      <span className={`w-full truncate text-center ${petal ? "" : "text-muted"}`}>
                        {petal ? (petal.mirrored ? t("mirrored") : each.action.namesClips ? "" : petal.clip.name) : t("missing")}
                      </span>
                    </dd>
                  </div>
                );
              })}
            </dl>
          </li>
        ))}
      </ul>
      {actions.some(({ byOrder }) => byOrder) && (
        <div className="mt-2">
          <FacingOrderFields />
        </div>
      )}
    </section>
  );
}

const NONE: readonly Action[] = [];

function inWords({ action, byOrder, petals, there }: ProposedAction, existing: readonly Action[]): string {
  const mirrored = Object.values(petals).filter((petal) => petal.mirrored).length;
  const clips = Object.entries(action.facings).map(([facing, ref]) => {
    const name = there.has(ref) ? petals[facing as Facing]?.clip.name : undefined;
    return [facing as Facing, name as ClipName | undefined] as const;
  });
  const { name, joined } = actionToBe(existing, action.name, new Map(clips));
  const ways = Math.max(action.ways, joined?.ways ?? 0) as Ways;
  const missing = FACINGS_OF[ways].filter((facing) => !petals[facing] && !joined?.facings[facing]).length;
  return [
    joined ? t("Add to the action {name}, {ways} facings", { name, ways }) : t("Make the action {name}, {ways} facings", { name, ways }),
    ...(byOrder ? [t("in this order")] : []),
    ...(mirrored > 0 ? [t("{mirrored} mirrored", { mirrored })] : []),
    ...(missing > 0 ? [t("{missing} missing", { missing })] : []),
  ].join(", ");
}
