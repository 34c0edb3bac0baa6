"use client";

import { setDelivery } from "@caravan/core/edit";
import type { Delivery } from "@caravan/core/model";
import { edit, useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { sizeInWords } from "../../ui/files";
import { useKeys } from "../../ui/keys";
import { ProgressLine } from "../../ui/progress-line";
import { TextField } from "../../ui/text-field";
import { type Build, useBuilding, useCurrentBuild } from "./build";
import { deliverAsZip } from "./deliver-zip";
import { Pages } from "./pages";
import { Settings } from "./settings";

/** What will be delivered, page by page, with its proof. */
export function Surface() {
  const delivery = useProject((project) => project.deliveries[0] as Delivery);
  const again = useBuilding();
  const build = useCurrentBuild();
  const ready = build.kind === "built";
  const deliver = () => {
    if (ready) void deliverAsZip(delivery.name, build.delivered);
  };
  useKeys("Ship", [{ keys: "d", label: "Deliver as a ZIP", run: deliver }]);
  return (
    <>
      <header className="flex items-center justify-between gap-3">
        <div className="flex items-baseline gap-2">
          <h2 className="text-title font-bold">
            <TextField
              label="Name of the delivery"
              value={delivery.name}
              onChange={(name) => edit(setDelivery, 0, { name: name.trim() })?.message}
              className="font-bold"
            />
          </h2>
          <span className="text-muted">the start of its files' names</span>
        </div>
        <Button look="now" onClick={deliver} disabled={!ready} hint="D" aria-keyshortcuts="d">
          Deliver as ZIP
        </Button>
      </header>
      <Settings delivery={delivery} />
      <BuildState build={build} onAgain={again} />
      {build.kind === "built" ? (
        <Pages pages={build.delivered.pages} views={build.delivered.views} />
      ) : (
        <div className="check grow rounded-box border border-line" />
      )}
      {build.kind === "built" && <ProofLine build={build} />}
    </>
  );
}

function BuildState({ build, onAgain }: { build: Build; onAgain: () => void }) {
  switch (build.kind) {
    case "building":
      return <ProgressLine label="Packing and checking" done={build.done} onStop={build.stop} />;
    case "failed":
      return (
        <div role="alert" className="rounded-box border border-l-4 border-line border-l-brick bg-raised p-3">
          <h3 className="font-bold text-brick">Not delivered</h3>
          <p>
            <strong>{build.error.where}</strong>: {build.error.what} {build.error.remedy}
          </p>
        </div>
      );
    case "stopped":
      return (
        <div className="flex items-center gap-3 rounded-box border border-line bg-raised p-2">
          <p className="grow">Packing was stopped.</p>
          <Button onClick={onAgain}>Pack again</Button>
        </div>
      );
    default:
      return null;
  }
}

function ProofLine({ build }: { build: Extract<Build, { kind: "built" }> }) {
  const { proof, files, pages } = build.delivered;
  const disk = files.reduce((sum, file) => sum + file.bytes.length, 0);
  const memory = pages.reduce((sum, { size }) => sum + size.w * size.h * 4, 0);
  return (
    <section
      aria-label="Proof"
      className="flex shrink-0 flex-wrap items-center justify-between gap-3 rounded-box border border-l-4 border-line border-l-cactus bg-surface px-4 py-2.5"
    >
      <div>
        <p data-testid="proof" className="text-strong font-semibold text-cactus">
          Proved: {proof.frames} frames in, {proof.exact} out, {proof.shared} shared, every pixel the same
        </p>
        <p className="text-muted">
          read back from the written files · {proof.clips} clips complete and in order · {build.ms} ms
        </p>
      </div>
      <div className="text-right">
        <p>
          <strong>{sizeInWords(disk)}</strong> on disk
        </p>
        <p className="text-muted">{sizeInWords(memory)} in the game's memory</p>
      </div>
    </section>
  );
}
