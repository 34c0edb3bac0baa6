/** Sends deliveries to The Crossing, the small game that plays them in its own tabs. */

import type { NamedFile } from "@caravan/core/codec";
import type { Project } from "@caravan/core/model";
import { whyOf } from "@caravan/core/model";
import { isSame, type Message, openChannel, type Played } from "../../crossing/channel";
import { inBackground } from "../../ui/in-background";
import { useOpenProject } from "../open-project";
import { deliverInWorker } from "./build-delivery";

/** What was asked for since this page was opened. */
let asked: readonly Played[] = [];
let channel: BroadcastChannel | null = null;

function send(message: Message): void {
  channel?.postMessage(message);
}

/** Whether a game plays this delivery of the project with this id. */
export function isPlayed(project: string, delivery: string): boolean {
  return asked.some((each) => isSame(each, { project, delivery }));
}

/** Gives a fresh build to the games that play it. */
export function handToGames(project: string, delivery: string, files: readonly NamedFile[]): void {
  if (isPlayed(project, delivery)) send({ kind: "files", played: { project, delivery }, files });
}

/** Builds what a game plays and gives it to it. */
export async function buildForGames(id: string, project: Project, delivery: string): Promise<void> {
  const found = project.deliveries.find(({ name }) => name === delivery);
  if (!found) return;
  const played = { project: id, delivery };
  try {
    const { files } = await deliverInWorker(project, found, new AbortController().signal, () => {});
    send({ kind: "files", played, files });
  } catch (error) {
    send({ kind: "failed", played, why: whyOf(error) });
  }
}

/** Answers games for as long as the studio is open; ends with what it returns. */
export function serveGames(): () => void {
  const own = openChannel();
  channel = own;
  own.addEventListener("message", ({ data }: MessageEvent<Message>) => {
    const { id, project } = useOpenProject.getState();
    if (data.kind !== "ask" || id === null || data.played.project !== id) return;
    if (!asked.some((each) => isSame(each, data.played))) asked = [...asked, data.played];
    inBackground(buildForGames(id, project, data.played.delivery));
  });
  return () => {
    own.close();
    if (channel === own) channel = null;
  };
}
