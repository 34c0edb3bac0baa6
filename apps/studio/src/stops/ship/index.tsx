import type { Finding } from "@caravan/core/check";
import type { Project } from "@caravan/core/model";
import { playingAtShip } from "../../preview/playing";
import { t } from "../../ui/words";
import { screenOf } from "../screen-of";

export const shipStop = {
  title: t("Ship"),
  ...screenOf(() => import("./screen")),
  help: t(
    "D delivers, Shift+D from any stop. The pages are shown as they will be; what was written has been read back and compared pixel by pixel.",
  ),
  playing: playingAtShip,
  state(_project: Project, findings: readonly Finding[] | null) {
    if (!findings) return "…";
    const stopping = findings.filter((finding) => finding.severity === "error");
    if (stopping.length === 0) return t("ready");
    return stopping.every(({ code }) => code === "nothing-cut")
      ? t("nothing yet")
      : { trouble: t("{count} to mend", { count: stopping.length }) };
  },
};
