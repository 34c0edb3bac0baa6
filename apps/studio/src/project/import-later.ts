/** Entry point for dropped, chosen or pasted files; the code behind it loads with the first ones. */
import type { HandedFile } from "./importing/collect";
import { firstOpened } from "./opening";

/** What a file picker offers. */
export const ART_FILES =
  "image/png,image/apng,image/gif,image/webp,image/jpeg,image/avif,image/bmp,video/webm,video/mp4,video/quicktime,.png,.apng,.gif,.webp,.jpg,.jpeg,.avif,.bmp,.tga,.ora,.webm,.mp4,.mov,.mkv,.zip,.json,.xml,.csv,.tsv,.txt,.yaml,.yml,.toml,.atlas,.plist,.ini,.cfg,.css,.lua,.js,.ts,.py,.caravan";

const arriving = () => import("./import-files");

/**
 * Imports files, as soon as a project is open or opening has failed, and opens the stop where work on them begins: a single sheet is cut,
 * several are reviewed, anything else too.
 */
export async function takeInAndGo(files: readonly File[] | readonly HandedFile[]): Promise<void> {
  const [{ takeInAll }] = await Promise.all([arriving(), firstOpened]);
  await takeInAll(files);
}

/** Loads the import code. */
export function takeInParts(): Promise<unknown> {
  return arriving();
}
