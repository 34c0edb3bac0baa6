/** One key from any stop: the game's folders and The Crossing get everything as it is now. */
import { say } from "../../ui/notices";
import { currentProject } from "../open-project";
import { deliverInWorker } from "./build-delivery";
import { buildForGames, handToGames, isPlayed } from "./for-the-crossing";
import { deliverIntoFolder, mayWriteFor, useOutlets } from "./game-folder";

/**
 * Builds anew every delivery that has a folder, and writes it there, and every one that The Crossing plays. Answers
 * false if there is none.
 */
export async function deliverAgain(): Promise<boolean> {
  const project = currentProject();
  const { outlets } = useOutlets.getState();
  const linked = project.deliveries.filter(({ name }) => outlets[name]);
  const played = project.deliveries.filter(({ name }) => isPlayed(name));
  // A browser lets a page ask only within seconds of a key or click, so all leave is got before anything is built.
  const refused = new Set<string>();
  for (const { name } of linked) if (!(await mayWriteFor(name))) refused.add(name);
  for (const delivery of linked.filter(({ name }) => !refused.has(name)))
    try {
      const delivered = await deliverInWorker(project, delivery, new AbortController().signal, () => {});
      handToGames(delivery.name, delivered.files);
      await deliverIntoFolder(delivery, delivered);
    } catch (error) {
      say({ tone: "trouble", text: `${delivery.name} was not delivered: ${error instanceof Error ? error.message : String(error)}` });
    }
  const onlyPlayed = played.filter((delivery) => !linked.includes(delivery));
  for (const { name } of onlyPlayed) await buildForGames(name);
  if (onlyPlayed.length > 0)
    say({ tone: "good", text: `The Crossing plays ${onlyPlayed.map(({ name }) => name).join(", ")} as it is now.` });
  return linked.length + played.length > 0;
}
