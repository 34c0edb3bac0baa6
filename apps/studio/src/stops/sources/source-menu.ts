/** Context menu of a source, on the wall and in the list. */

import { removeSource } from "@caravan/core/edit";
import { isOfPieces, type SourceId } from "@caravan/core/model";
import { act } from "../../project/act";
import { currentProject } from "../../project/open-project";
import { chooseSource, go } from "../../project/view";
import { goToField } from "../../ui/fields-by-key";
import { inBackground } from "../../ui/in-background";
import type { Menu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { replaceArt } from "./replace-art";

export function sourceMenu(target: Element): Menu | null {
  const id = target.closest<HTMLElement>("[data-row], [data-source]")?.dataset;
  const source = currentProject().sources.find((each) => each.id === (id?.source ?? id?.row));
  if (!source) return null;
  chooseSource(source.id as SourceId);
  return [
    { label: source.cut ? t("See its frames") : t("Cut it"), keys: "Enter", run: () => go("frames") },
    { label: t("Rename"), run: () => goToField("sourceName") },
    ...(isOfPieces(source) ? [] : [{ label: t("Replace its art …"), run: () => inBackground(replaceArt(source)) }]),
    null,
    { label: t("Remove"), run: () => act(removeSource, source.id) },
  ];
}
