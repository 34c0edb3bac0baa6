"use client";

import { chosenOf } from "@caravan/core/delivery-plan";
import type { Behaviour, Delivery, Project } from "@caravan/core/model";
import { deliverableBehaviours } from "@caravan/core/rehearse";
import { type Fitting, fittingOf } from "@caravan/crossing/fitting";
import { crossingAddress } from "../../crossing/channel";
import { useOpenProject, useProject } from "../../project/open-project";
import { Detail } from "../../ui/detail";
import { t } from "../../ui/words";
import { useDelivery } from "./chosen-delivery";

/** Links to the small game that plays this delivery, and says what it will play. */
export function InAGame() {
  const { delivery } = useDelivery();
  const project = useProject((each) => each);
  const id = useOpenProject((state) => state.id);
  if (delivery.kind === "films" || id === null) return null;
  const words = delivery.data.atlas ? wordsFor(project, delivery) : null;
  return (
    <Detail title={t("In a game")}>
      {words ? (
        <>
          <p className="mb-1.5 text-small text-muted">{words}</p>
          <a
            href={crossingAddress({ project: id, delivery: delivery.name })}
            target="_blank"
            className="inline-flex min-h-7 items-center rounded-box border border-line bg-raised px-3 py-1 hover:border-line-strong"
            rel="noopener"
          >
            {t("Play it in The Crossing")}
          </a>
        </>
      ) : (
        <p className="text-small text-muted">
          {delivery.data.atlas
            ? t("The Crossing, a small game, plays clips: make one at Clips first.")
            : t("The Crossing, a small game, reads the atlas file: tick it under Beside the pictures.")}
        </p>
      )}
    </Detail>
  );
}

/** What the small game does with the delivery; null if nothing of it can be played. */
function wordsFor(project: Project, delivery: Delivery): string | null {
  try {
    const chosen = chosenOf(project, delivery).project;
    const { clips, actions } = chosen;
    const [behaviour] = deliverableBehaviours(project, chosen);
    if (behaviour) return rulesInWords(behaviour);
    const fitting = fittingOf({
      clips: Object.fromEntries(clips.map(({ name, playback, times }) => [name, { playback, times }])),
      actions: Object.fromEntries(actions.map(({ name, facings }) => [name, { facings }])),
    });
    return fitting && fittingInWords(fitting);
  } catch {
    // The choice matches nothing, which is among the findings.
    return null;
  }
}

const BUTTON_KEYS = ["Space", "F", "D", "S"];

function rulesInWords({ name, inputs }: Behaviour): string {
  const buttons = inputs
    .filter(({ kind }) => kind === "button")
    .flatMap((each, k) => (BUTTON_KEYS[k] ? [`${BUTTON_KEYS[k]}: ${each.name}`] : []));
  const switches = inputs.filter(({ kind }) => kind === "switch").map((each, k) => `${k + 1}: ${each.name}`);
  return t("The rules of {name} decide: {what}.", { name, what: [t("arrow keys walk"), ...buttons, ...switches].join("; ") });
}

function fittingInWords({ move, rest, act, sounds }: Fitting): string {
  const moves = sounds
    ? t("Arrow keys play {move}", { move })
    : t("Nothing in it sounds like walking, so arrow keys play {move}", { move });
  return act
    ? t("{moves}; standing still shows {rest}; Space plays {act}.", { moves, rest, act })
    : t("{moves}; standing still shows {rest}.", { moves, rest });
}
