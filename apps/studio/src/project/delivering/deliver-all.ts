/** Delivers every delivery of the project at once: to their game folders where linked, the rest as one ZIP. */

import type { NamedFile } from "@caravan/core/codec";
import { checkFileNames } from "@caravan/core/delivery-plan";
import { counted, whyOf } from "@caravan/core/model";
import { create } from "zustand";
import { saveFile, sizeInWords } from "../../ui/files";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";
import { run } from "../../workers/client";
import { begin } from "../begun";
import { deliverInWorker } from "./build-delivery";
import { handToGames } from "./for-the-crossing";
import { deliverIntoFolder, mayWriteFor, useOutlets } from "./game-folder";

/** The index of the delivery being built, and the total; null if none is. */
export const useDeliveringAll = create<{ readonly now: { readonly at: number; readonly of: number; readonly name: string } | null }>(
  () => ({
    now: null,
  }),
);

/** Builds, proves and delivers every delivery of the open project. Reports each one that fails and delivers the others. Does nothing while it is running. */
export async function deliverAll(): Promise<void> {
  if (useDeliveringAll.getState().now) return;
  const { id, project, signal } = begin();
  if (id === null) return;
  const { deliveries } = project;
  useDeliveringAll.setState({ now: { at: 0, of: deliveries.length, name: deliveries[0]?.name ?? "" } });
  try {
    const { outlets } = useOutlets.getState();
    // A browser lets a page ask only within seconds of a click, so leave is got before anything is built.
    const into = new Set<string>();
    for (const { name } of deliveries) if (outlets.has(name) && (await mayWriteFor({ project: id, delivery: name }))) into.add(name);
    const files: NamedFile[] = [];
    const zipped: string[] = [];
    for (const [at, delivery] of deliveries.entries()) {
      const { name } = delivery;
      useDeliveringAll.setState({ now: { at, of: deliveries.length, name } });
      try {
        if (outlets.has(name) && !into.has(name))
          throw new Error(t("Permission to write into {folder} was not given.", { folder: outlets.get(name)?.folder ?? "" }));
        const delivered = await deliverInWorker(project, delivery, signal, () => {});
        handToGames(id, name, delivered.files);
        if (into.has(name)) await deliverIntoFolder({ project: id, delivery: name }, delivered);
        else {
          files.push(...delivered.files);
          zipped.push(name);
        }
      } catch (error) {
        const why = signal.aborted ? t("another project was opened.") : whyOf(error);
        say({ tone: "trouble", text: t("{name} of {project} was not delivered: {why}", { name, project: project.name, why }) });
      }
    }
    if (zipped.length > 0 && !signal.aborted) await asOneZip(project.name, zipped, files);
  } finally {
    useDeliveringAll.setState({ now: null });
  }
}

async function asOneZip(project: string, names: readonly string[], files: readonly NamedFile[]): Promise<void> {
  try {
    checkFileNames(files, `the files of ${names.join(", ")}`);
    const zip = await run("zip", { files });
    const name = `${project.replace(/[\\/:*?"<>|\p{Cc}]/gu, " ").trim() || "deliveries"}.zip`;
    saveFile(name, zip, "application/zip");
    say({
      tone: "good",
      text: t("Delivered {names} as {name}: {files}, {size}.", {
        names: names.join(", "),
        name,
        files: counted(files.length, "file"),
        size: sizeInWords(zip.length),
      }),
    });
  } catch (error) {
    say({ tone: "trouble", text: t("The ZIP was not made: {why}", { why: whyOf(error) }) });
  }
}
