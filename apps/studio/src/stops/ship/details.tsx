"use client";

import type { ClipName } from "@caravan/core/model";
import { useProject } from "../../project/open-project";
import { chooseClip, chosenClip, useView } from "../../project/view";
import { Detail } from "../../ui/detail";
import { sizeInWords } from "../../ui/files";
import { Beside } from "./beside";
import { useCurrentBuild } from "./build";
import { useDelivery } from "./chosen-delivery";
import { ExampleShape } from "./example-shape";
import { GameFolder } from "./game-folder-line";
import { Sizes } from "./sizes";
import { WhatGoes } from "./what-goes";

/** The delivered files, and the clip to watch meanwhile. */
export function Details() {
  const build = useCurrentBuild();
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
      <WhatGoes />
      <Sizes />
      <Beside />
      {delivery.kind !== "films" && <ExampleShape />}
      <Detail title="Files">
        {build.kind === "built" ? (
          <ul aria-label="Files">
            {build.delivered.files.map((file) => (
              <li key={file.path} className="flex justify-between gap-3 py-0.5">
                <span className="truncate">{file.path}</span>
                <span className="number text-muted">{sizeInWords(file.bytes.length)}</span>
              </li>
            ))}
          </ul>
        ) : (
          <p className="text-muted">They are listed when packing is done.</p>
        )}
      </Detail>
      <Detail title="Without this window">
        <p className="mb-1.5 text-small text-muted">Save the project to a file; the command line makes the same bytes of it.</p>
        <code className="number block rounded-box border border-line bg-raised p-2 text-small break-words">
          npx caravan build project.caravan --out game/
        </code>
      </Detail>
    </>
  );
}
