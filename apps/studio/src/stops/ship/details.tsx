"use client";

import { BudgetDetail } from "../../budget/budget-detail";
import { useProject } from "../../project/open-project";
import { chooseClip, chosenClip, useView } from "../../project/view";
import { Detail } from "../../ui/detail";
import { Select } from "../../ui/select";
import { useIsWide } from "../../ui/wide";
import { t } from "../../ui/words";
import { useDelivery } from "./chosen-delivery";
import { WhatGoes } from "./contents";
import { ExampleShape } from "./example-shape";
import { Files } from "./files";
import { GameFolder } from "./game-folder-line";
import { InAGame } from "./in-a-game";
import { Beside } from "./other-files";
import { Sizes } from "./sizes";

/** Lists the delivered files, and chooses the clip in the player. */
export function Details() {
  const { delivery, index } = useDelivery();
  const isWide = useIsWide();
  const project = useProject((each) => each);
  const clip = useView((view) => chosenClip(project, view));
  return (
    <>
      {clip && (
        <Detail title={t("Clip in the player")}>
          <Select
            label={t("Clip in the player")}
            className="w-full"
            value={clip.name}
            options={project.clips.map((each) => [each.name, each.name] as const)}
            onChange={chooseClip}
          />
        </Detail>
      )}
      <GameFolder delivery={delivery.name} />
      <InAGame />
      {!isWide && (
        <>
          <WhatGoes />
          <Sizes />
          <Beside />
        </>
      )}
      {delivery.kind !== "films" && <BudgetDetail of={{ delivery: index }} />}
      {delivery.kind !== "films" && <ExampleShape />}
      <Files />
      <Detail title={t("On the command line")}>
        <p className="mb-1.5 text-small text-muted">{t("Save the project to a file; the command line builds the same bytes from it.")}</p>
        <code className="number block rounded-box border border-line bg-raised p-2 text-small break-words">
          {t("npx caravan build project.caravan --out game/")}
        </code>
      </Detail>
    </>
  );
}
