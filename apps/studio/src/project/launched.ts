/** Takes files that the system hands over when Caravan is installed and a person opens one there. */
import { inBackground } from "../ui/in-background";
import { takeInAndGo } from "./import-later";

/** Of browsers that know file handlers; the types of the platform lack it. */
interface LaunchQueue {
  setConsumer(take: (launch: { readonly files?: readonly FileSystemFileHandle[] }) => void): void;
}

/** Imports the files that the page was opened with. */
export function takeInLaunched(): void {
  const { launchQueue } = globalThis as { launchQueue?: LaunchQueue };
  launchQueue?.setConsumer(({ files = [] }) => {
    if (files.length > 0) inBackground(Promise.all(files.map((each) => each.getFile())).then(takeInAndGo));
  });
}
