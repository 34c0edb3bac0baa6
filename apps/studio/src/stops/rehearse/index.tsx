import type { Finding } from "@caravan/core/check";
import { counted, type Project } from "@caravan/core/model";
import { t } from "../../ui/words";
import { screenOf } from "../screen-of";

export const rehearseStop = {
  title: t("Rehearse"),
  ...screenOf(() => import("./screen")),
  help: t(
    "The arrow keys drive the figure. R records, Enter pauses, , and . step by one display refresh; a click on the account goes to that moment.",
  ),
  /** The stage plays; a second figure beside it would be one too many. */
  playing: null,
  state: ({ behaviours = [] }: Project, findings: readonly Finding[] | null) => {
    const rules = behaviours.reduce((sum, each) => sum + each.rules.length, 0);
    const wrong = (findings ?? []).filter(({ place, severity }) => place.stop === "rehearse" && severity !== "note").length;
    if (wrong > 0) return { trouble: t("{wrong} to mend", { wrong }) };
    return behaviours.length === 0 ? t("not yet") : counted(rules, "rule");
  },
};
