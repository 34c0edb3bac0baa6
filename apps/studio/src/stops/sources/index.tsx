import type { Project } from "@caravan/core/model";
import { playingAtSources } from "../../preview/playing";
import { t } from "../../ui/words";
import { screenOf } from "../screen-of";

export const sourcesStop = {
  title: t("Sources"),
  ...screenOf(() => import("./screen")),
  help: t("Drop or paste art anywhere on the page: files, folders, ZIPs. Enter opens the chosen sheet at Frames."),
  playing: playingAtSources,
  state: ({ sources }: Project) => (sources.length === 0 ? t("add art") : String(sources.length)),
};
