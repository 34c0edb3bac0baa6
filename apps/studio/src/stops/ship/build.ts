"use client";

/** Rebuilds the delivery automatically whenever the project changes while Ship is shown. */
import { CaravanError, type Delivery, type Project } from "@caravan/core/model";
import { useEffect, useState } from "react";
import { create } from "zustand";
import { deliverInWorker } from "../../project/delivering/build-delivery";
import { handToGames } from "../../project/delivering/for-the-crossing";
import { useOpenProject, useProject } from "../../project/open-project";
import { chosenDelivery, useView } from "../../project/view";
import { inBackground } from "../../ui/in-background";
import { t } from "../../ui/words";
import type { Delivered } from "../../workers/jobs";

export type Build =
  | { readonly kind: "none" }
  | { readonly kind: "building"; readonly done: number; readonly stop: () => void; readonly before: Delivered | null }
  | {
      readonly kind: "built";
      readonly delivered: Delivered;
      readonly of: Project;
      /** Index of the delivery. */
      readonly index: number;
      readonly ms: number;
    }
  | { readonly kind: "failed"; readonly error: CaravanError }
  | { readonly kind: "stopped" };

const useBuild = create<{ readonly build: Build }>(() => ({ build: { kind: "none" } }));

/** The build if it is of the current project: an older one proves nothing. */
export function useCurrentBuild(): Build {
  const project = useProject((each) => each);
  const index = useView((view) => chosenDelivery(project, view));
  return useBuild(({ build }) => (build.kind === "built" && !(build.of === project && build.index === index) ? NOTHING_YET : build));
}

const NOTHING_YET: Build = { kind: "none" };

/** A pause in editing before a build begins. */
const PAUSE = 250; // ms

/** Keeps the build up to date for as long as the component is shown. Answers with a way to build again after a stop. */
export function useBuilding(): () => void {
  const project = useProject((each) => each);
  const index = useView((view) => chosenDelivery(project, view));
  const [again, setAgain] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `again` asks for another build of the same project
  useEffect(() => {
    const { build } = useBuild.getState();
    if (build.kind === "built" && build.of === project && build.index === index) return;
    const stopping = new AbortController();
    const timer = setTimeout(() => inBackground(buildNow(project, index, stopping)), PAUSE);
    return () => {
      clearTimeout(timer);
      stopping.abort("superseded");
    };
  }, [project, index, again]);
  return () => setAgain((count) => count + 1);
}

async function buildNow(project: Project, index: number, stopping: AbortController): Promise<void> {
  const started = performance.now();
  const { id } = useOpenProject.getState();
  const { build: last } = useBuild.getState();
  const before = last.kind === "built" && last.index === index ? last.delivered : null;
  const stop = () => {
    stopping.abort();
    useBuild.setState({ build: { kind: "stopped" } });
  };
  const show = (done: number) => {
    if (!stopping.signal.aborted) useBuild.setState({ build: { kind: "building", done, stop, before } });
  };
  show(0);
  try {
    const delivered = await deliverInWorker(project, project.deliveries[index] as Delivery, stopping.signal, show);
    if (stopping.signal.aborted) return;
    if (id !== null) handToGames(id, (project.deliveries[index] as Delivery).name, delivered.files);
    useBuild.setState({ build: { kind: "built", delivered, of: project, index, ms: Math.round(performance.now() - started) } });
  } catch (error) {
    if (stopping.signal.aborted) return;
    const problem =
      error instanceof CaravanError
        ? error
        : new CaravanError(
            "proof-failed",
            t("delivery"),
            error instanceof Error ? `${error.message}.` : t("It failed."),
            t("Nothing was delivered."),
            { cause: error },
          );
    useBuild.setState({ build: { kind: "failed", error: problem } });
  }
}
