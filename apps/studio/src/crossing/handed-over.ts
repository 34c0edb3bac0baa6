/** Gives The Crossing its delivery from the studio's tab, in place of a server. */

import type { NamedFile } from "@caravan/core/codec";
import type { Depot } from "@caravan/crossing/game";
import { t } from "../ui/words";
import { isSame, type Message, openChannel, type Played } from "./channel";

/** The timeout after which the studio is not open with that project. */
const NO_ANSWER = 8000; // ms

/** A depot with the studio's last build. `onSilence` receives the reason why nothing arrives, null once something does. */
export function handedOver(played: Played, onSilence: (why: string | null) => void, signal: AbortSignal): Depot {
  const channel = openChannel();
  let files: readonly NamedFile[] = [];
  let builds = 0;
  let arrived = () => {};
  const first = new Promise<void>((resolve) => {
    arrived = resolve;
  });
  const waiting = setTimeout(
    () => onSilence(t("The studio does not answer. Open it in another tab, with the project to play.")),
    NO_ANSWER,
  );
  const hear = ({ data }: MessageEvent<Message>) => {
    if (data.kind === "ask" || !isSame(data.played, played)) return;
    clearTimeout(waiting);
    if (data.kind === "failed") return onSilence(data.why);
    onSilence(null);
    if (builds > 0 && sameFiles(files, data.files)) return;
    files = data.files;
    builds++;
    arrived();
  };
  channel.addEventListener("message", hear);
  channel.postMessage({ kind: "ask", played } satisfies Message);
  signal.addEventListener("abort", () => {
    clearTimeout(waiting);
    channel.close();
  });
  const called = (path: string): Uint8Array => {
    const file = files.find((each) => each.path === path);
    if (!file) throw new Error(t("{path} was not delivered.", { path }));
    return file.bytes;
  };
  return {
    async atlas() {
      await first;
      const file = files.find(({ path }) => path.endsWith(".atlas.json"));
      if (!file) throw new Error(t("no atlas file was delivered."));
      return new TextDecoder().decode(file.bytes);
    },
    async page(image) {
      return new Blob([called(image) as Uint8Array<ArrayBuffer>], { type: "image/png" });
    },
    async stamp() {
      return String(builds);
    },
  };
}

function sameFiles(a: readonly NamedFile[], b: readonly NamedFile[]): boolean {
  return (
    a.length === b.length &&
    a.every(({ path, bytes }, k) => {
      const other = b[k] as NamedFile;
      return path === other.path && bytes.length === other.bytes.length && bytes.every((byte, at) => byte === other.bytes[at]);
    })
  );
}
