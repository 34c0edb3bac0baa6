"use client";

import { keptRefs } from "@caravan/core/model";
import { useProject } from "../../project/open-project";
import { chooseSource, chosenSource, go, useView } from "../../project/view";
import { ListHeading, RowList } from "../../ui/row-list";
import { WithMenu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { sourceMenu } from "./source-menu";

export function List() {
  const project = useProject((each) => each);
  const { sources } = project;
  const chosen = useView((view) => chosenSource(project, view)?.id ?? null);
  return (
    <>
      <ListHeading title={t("Sources")} count={sources.length} />
      <WithMenu label={t("Source menu")} menuOf={sourceMenu}>
        <div>
          <RowList
            label={t("Sources")}
            rows={sources.map((source) => ({
              id: source.id,
              name: source.name,
              fact: source.cut ? keptRefs(source).length : t("not cut"),
            }))}
            chosen={chosen}
            onChoose={chooseSource}
            onOpen={(id) => {
              chooseSource(id);
              go("frames");
            }}
          />
        </div>
      </WithMenu>
      {sources.length === 0 && <p className="px-1.5 text-muted">{t("No pictures yet.")}</p>}
    </>
  );
}
