/** Watches the linked folder: it is looked at whenever a person comes back to the tab, and news are told. */
import type { Source } from "@caravan/core/model";
import { inBackground } from "../../ui/in-background";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";
import { currentProject, useOpenProject } from "../open-project";
import { type LinkedFolder, useLinkedFolder } from "./linked";
import { lookAgain } from "./linked-folder";
import { seeChanged } from "./review-changed";

/** Checks the folder when a project opens and whenever the user returns to the tab, until the returned function is called. */
export function watchLinkedFolder(): () => void {
  const back = () => document.visibilityState === "visible" && inBackground(lookAgain());
  const stop = useOpenProject.subscribe((open, before) => {
    if (open.id !== before.id) inBackground(lookAgain());
  });
  const stopTelling = useLinkedFolder.subscribe(({ linked }, before) => {
    const known = linked?.project === before.linked?.project ? (before.linked?.changed ?? []) : [];
    const news = linked ? currentProject().sources.filter(({ id }) => linked.changed.includes(id) && !known.includes(id)) : [];
    if (linked && news.length > 0) tell(linked, news);
  });
  addEventListener("focus", back);
  document.addEventListener("visibilitychange", back);
  return () => {
    stop();
    stopTelling();
    removeEventListener("focus", back);
    document.removeEventListener("visibilitychange", back);
  };
}

function tell({ name, described }: LinkedFolder, news: readonly Source[]): void {
  const names = { name, news: news.map((source) => source.name).join(", ") };
  say({
    tone: "plain",
    text: news.every(({ id }) => described.has(id))
      ? t("Metadata changed in {name}: {news}.", names)
      : t("Art changed in {name}: {news}.", names),
    action: { label: t("See what changed"), run: seeChanged },
  });
}
