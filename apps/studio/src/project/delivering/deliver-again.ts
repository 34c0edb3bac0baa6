/** Delivers everything again with one key from any stop, to the linked game folders and The Crossing. */

import { whyOf } from "@caravan/core/model";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";
import { begin } from "../begun";
import { deliverInWorker } from "./build-delivery";
import { buildForGames, handToGames, isPlayed } from "./for-the-crossing";
import { deliverIntoFolder, mayWriteFor, useOutlets } from "./game-folder";

let running = false;

/**
 * Rebuilds every delivery that has a folder, or that The Crossing plays, for the project that is open now, whatever is opened meanwhile.
 * Returns false if there is none; while it runs, further calls do nothing.
 */
export async function deliverAgain(): Promise<boolean> {
  if (running) return true;
  running = true;
  try {
    return await delivering();
  } finally {
    running = false;
  }
}

async function delivering(): Promise<boolean> {
  const { id, project, signal } = begin();
  if (id === null) return false;
  const { outlets } = useOutlets.getState();
  const linked = project.deliveries.filter(({ name }) => outlets.has(name));
  const played = project.deliveries.filter(({ name }) => isPlayed(id, name));
  // A browser lets a page ask only within seconds of a key or click, so all leave is got before anything is built.
  const refused = new Set<string>();
  for (const { name } of linked) if (!(await mayWriteFor({ project: id, delivery: name }))) refused.add(name);
  for (const delivery of linked.filter(({ name }) => !refused.has(name)))
    try {
      const delivered = await deliverInWorker(project, delivery, signal, () => {});
      handToGames(id, delivery.name, delivered.files);
      await deliverIntoFolder({ project: id, delivery: delivery.name }, delivered);
    } catch (error) {
      const why = signal.aborted ? t("another project was opened.") : whyOf(error);
      say({
        tone: "trouble",
        text: t("{delivery} of {project} was not delivered: {why}", { delivery: delivery.name, project: project.name, why }),
      });
    }
  const onlyPlayed = played.filter((delivery) => !linked.includes(delivery));
  for (const { name } of onlyPlayed) await buildForGames(id, project, name);
  if (onlyPlayed.length > 0)
    say({
      tone: "good",
      text: t("The Crossing plays {clips} as it is now.", { clips: onlyPlayed.map(({ name }) => name).join(", ") }),
    });
  return linked.length + played.length > 0;
}
