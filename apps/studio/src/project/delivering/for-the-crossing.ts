/** Hands deliveries to The Crossing, the small game that plays them in tabs of its own. */
import type { NamedFile } from "@caravan/core/codec";
import { isSame, type Message, openChannel, type Played } from "../../crossing/channel";
import { currentProject, useOpenProject } from "../open-project";
import { deliverInWorker } from "./build-delivery";

/** What was asked for since this page was opened. */
let asked: readonly Played[] = [];
let channel: BroadcastChannel | null = null;

function send(message: Message): void {
  channel?.postMessage(message);
}

/** Whether a game plays this delivery of the open project. */
export function isPlayed(delivery: string): boolean {
  const { id } = useOpenProject.getState();
  return id !== null && asked.some((each) => isSame(each, { project: id, delivery }));
}

/** Gives a fresh build to the games that play it. */
export function handToGames(delivery: string, files: readonly NamedFile[]): void {
  const { id } = useOpenProject.getState();
  if (id !== null && isPlayed(delivery)) send({ kind: "files", played: { project: id, delivery }, files });
}

/** Builds what a game plays and gives it to it. */
export async function buildForGames(delivery: string): Promise<void> {
  const { id } = useOpenProject.getState();
  const project = currentProject();
  const found = project.deliveries.find(({ name }) => name === delivery);
  if (!found || id === null) return;
  const played = { project: id, delivery };
  try {
    const { files } = await deliverInWorker(project, found, new AbortController().signal, () => {});
    send({ kind: "files", played, files });
  } catch (error) {
    send({ kind: "failed", played, why: error instanceof Error ? error.message : String(error) });
  }
}

/** Answers games for as long as the studio is open; ends with what it returns. */
export function serveGames(): () => void {
  const own = openChannel();
  channel = own;
  own.addEventListener("message", ({ data }: MessageEvent<Message>) => {
    if (data.kind !== "ask" || data.played.project !== useOpenProject.getState().id) return;
    if (!asked.some((each) => isSame(each, data.played))) asked = [...asked, data.played];
    void buildForGames(data.played.delivery);
  });
  return () => {
    own.close();
    if (channel === own) channel = null;
  };
}
