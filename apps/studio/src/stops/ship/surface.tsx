"use client";

import type { Proof } from "@caravan/core/deliver";
import { counted, type Delivery } from "@caravan/core/model";
import { deliverAll, useDeliveringAll } from "../../project/delivering/deliver-all";
import { deliverIntoFolder, useOutlets } from "../../project/delivering/game-folder";
import { useOpenProject, useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { sizeInWords } from "../../ui/files";
import { inBackground } from "../../ui/in-background";
import { useKeys } from "../../ui/keys";
import { ProgressLine } from "../../ui/progress-line";
import { TextField } from "../../ui/text-field";
import { useIsWide } from "../../ui/wide";
import { facts, t } from "../../ui/words";
import { type Build, useBuilding, useCurrentBuild } from "./build";
import { useDelivery } from "./chosen-delivery";
import { WhatGoes } from "./contents";
import { deliverAsZip } from "./deliver-zip";
import { Beside } from "./other-files";
import { Pages } from "./pages";
import { Settings } from "./settings";
import { Sizes } from "./sizes";

/** Shows what will be delivered, page by page, with its proof. */
export function Surface() {
  const { delivery, set } = useDelivery();
  const again = useBuilding();
  const build = useCurrentBuild();
  const isWide = useIsWide();
  const ready = build.kind === "built";
  const deliveries = useProject((project) => project.deliveries.length);
  const several = deliveries > 1;
  const all = useDeliveringAll(({ now }) => now);
  const id = useOpenProject((open) => open.id);
  const folder = useOutlets(({ outlets }) => outlets.get(delivery.name)?.folder);
  const deliver = () => {
    if (!ready) return;
    if (folder && id !== null) inBackground(deliverIntoFolder({ project: id, delivery: delivery.name }, build.delivered));
    else asZip();
  };
  const asZip = () => {
    if (ready) inBackground(deliverAsZip(delivery.name, build.delivered));
  };
  useKeys(t("Ship"), [{ keys: "d", label: t("Deliver: into the game's folder, or as a ZIP"), run: deliver }]);
  return (
    <>
      <header className="flex items-center justify-between gap-3 max-[39.9375em]:flex-wrap">
        <div className="flex items-baseline gap-2">
          <h2 className="text-title font-bold">
            <TextField
              label={t("Name of the delivery")}
              value={delivery.name}
              onChange={(name) => set({ name: name.trim() })}
              className="font-bold"
            />
          </h2>
          <span className="text-muted">{t("the start of its file names")}</span>
        </div>
        <div className="flex gap-2 max-[39.9375em]:flex-wrap">
          {folder && (
            <Button onClick={asZip} disabled={!ready}>
              {t("As ZIP")}
            </Button>
          )}
          {several && (
            <Button once onClick={() => inBackground(deliverAll())} disabled={all !== null}>
              {all
                ? t("Delivering {name}, {at} of {of} …", { name: all.name, at: all.at + 1, of: all.of })
                : t("Deliver all {deliveries}", { deliveries })}
            </Button>
          )}
          <Button look="now" once onClick={deliver} disabled={!ready} hint="D" aria-keyshortcuts="d">
            {folder ? t("Deliver into {folder}", { folder }) : t("Deliver as ZIP")}
          </Button>
        </div>
      </header>
      <Settings />
      <div className="flex min-h-0 grow gap-3">
        {isWide && (
          <section
            data-region="settings"
            aria-label={t("Delivery settings")}
            tabIndex={0}
            className="scrolls w-76 shrink-0 min-[93.75em]:w-80 rounded-box border border-line [--behind:var(--surface)]"
          >
            <WhatGoes />
            <Sizes />
            <Beside />
          </section>
        )}
        {/** Progress and proof are shown with the pages, so that no setting moves away under the pointer that changes it. */}
        <div className="flex min-h-0 min-w-0 grow flex-col gap-3">
          <BuildState build={build} onAgain={again} />
          {build.kind === "built" ? <Pages delivered={build.delivered} /> : <div className="check grow rounded-box border border-line" />}
          {build.kind === "built" && <ProofLine build={build} kind={delivery.kind} />}
        </div>
      </div>
    </>
  );
}

function BuildState({ build, onAgain }: { build: Build; onAgain: () => void }) {
  switch (build.kind) {
    case "building":
      return <ProgressLine label={t("Packing and checking")} done={build.done} onStop={build.stop} />;
    case "failed":
      return (
        <div role="alert" className="rounded-box border border-l-4 border-line border-l-brick bg-raised p-3">
          <h3 className="font-bold text-brick">{t("Not delivered")}</h3>
          <p>
            <strong>{build.error.where}</strong>: {build.error.what} {build.error.remedy}
          </p>
        </div>
      );
    case "stopped":
      return (
        <div className="flex items-center gap-3 rounded-box border border-line bg-raised p-2">
          <p className="grow">{t("Packing was stopped.")}</p>
          <Button onClick={onAgain}>{t("Pack again")}</Button>
        </div>
      );
    default:
      return null;
  }
}

function provedInWords(kind: Delivery["kind"], { frames, exact, shared }: Proof): string {
  const pixels =
    exact === frames ? t("every pixel the same") : t("{frames} in the nearest colours that their format holds", { frames: frames - exact });
  return kind === "films"
    ? t("{frames} pictures of films in, {frames} out, {pixels}", { frames, pixels })
    : t("{frames} frames in, {frames} out, {shared} shared, {pixels}", { frames, shared, pixels });
}

function ProofLine({ build, kind }: { build: Extract<Build, { kind: "built" }>; kind: Delivery["kind"] }) {
  const { proof, files, pages, notes } = build.delivered;
  const disk = files.reduce((sum, file) => sum + file.bytes.length, 0);
  const memory = pages.reduce((sum, page) => sum + page.memory, 0);
  return (
    <section
      aria-label={t("Proof")}
      className="flex shrink-0 flex-wrap items-center justify-between gap-x-3 gap-y-1 rounded-box border border-l-4 border-line border-l-cactus bg-surface px-4 py-2.5"
    >
      <div>
        <p role="status" data-testid="proof" className="text-strong font-semibold text-cactus">
          {t("Proved: {proved}", { proved: provedInWords(kind, proof) })}
        </p>
        <p className="text-muted">
          {facts(
            t("read back from the written files"),
            t("{clips} complete and in order", { clips: counted(proof.clips, "clip") }),
            proof.marked > 0 && t("marks of {marked}", { marked: counted(proof.marked, "frame") }),
            t("{ms} ms", { ms: build.ms }),
          )}
        </p>
        {notes.length > 0 && (
          <ul aria-label={t("Notes")} className="mt-1 max-h-16 overflow-y-auto text-small">
            {notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        )}
      </div>
      <div className="flex flex-wrap gap-x-3">
        <p>
          <strong>{sizeInWords(disk)}</strong> {t("on disk")}
        </p>
        <p className="text-muted">{t("{size} in the game's memory", { size: sizeInWords(memory) })}</p>
      </div>
    </section>
  );
}
