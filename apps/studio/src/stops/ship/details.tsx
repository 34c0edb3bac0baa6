"use client";

import type { ClipName } from "@caravan/core/model";
import { useProject } from "../../project/open-project";
import { chooseClip, chosenClip, useView } from "../../project/view";
import { Detail } from "../../ui/detail";
import { Beside } from "./beside";
import { useDelivery } from "./chosen-delivery";
import { ExampleShape } from "./example-shape";
import { Files } from "./files";
import { GameFolder } from "./game-folder-line";
import { InAGame } from "./in-a-game";
import { Sizes } from "./sizes";
import { WhatGoes } from "./what-goes";

/** The delivered files, and the clip to watch meanwhile. */
export function Details() {
  const { delivery } = useDelivery();
  const project = useProject((each) => each);
  const clip = useView((view) => chosenClip(project, view));
  return (
    <>
      {clip && (
        <Detail title="Clip in the player">
          <select
            aria-label="Clip in the player"
            className="min-h-8 w-full rounded-box border border-line bg-raised px-2"
            value={clip.name}
            onChange={(event) => chooseClip(event.target.value as ClipName)}
          >
            {project.clips.map((each) => (
              <option key={each.name} value={each.name}>
                {each.name}
              </option>
            ))}
          </select>
        </Detail>
      )}
      <GameFolder delivery={delivery.name} />
      <InAGame />
      <WhatGoes />
      <Sizes />
      <Beside />
      {delivery.kind !== "films" && <ExampleShape />}
      <Files />
      <Detail title="Without this window">
        <p className="mb-1.5 text-small text-muted">Save the project to a file; the command line makes the same bytes of it.</p>
        <code className="number block rounded-box border border-line bg-raised p-2 text-small break-words">
          npx caravan build project.caravan --out game/
        </code>
      </Detail>
    </>
  );
}
