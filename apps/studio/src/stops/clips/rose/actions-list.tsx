"use client";

import { addAction } from "@caravan/core/edit";
import { type Action, type ActionName, freeName } from "@caravan/core/model";
import { useState } from "react";
import { RowsDialog } from "../../../making/rows-dialog";
import { act } from "../../../project/act";
import { useProject } from "../../../project/open-project";
import { chooseAction, chosenAction, useView } from "../../../project/view";
import { Button } from "../../../ui/button";
import { ListHeading, RowList } from "../../../ui/row-list";
import { t } from "../../../ui/words";
import { ByNames } from "./by-names";

/** Lists the project's actions, and the ways to make one: by clip names, by the rows of a sheet, or empty. */
export function ActionsList() {
  const project = useProject((each) => each);
  const chosen = useView((view) => chosenAction(project, view)?.name ?? null);
  const [dialog, setDialog] = useState<"names" | "rows" | null>(null);
  const { actions, clips, sources } = project;
  const make = () => {
    const name = freeName("action", new Set(actions.map((each) => each.name)));
    if (act(addAction, name, 4)) chooseAction(name as ActionName);
  };
  return (
    <section aria-label={t("Actions")} className={actions.length > 0 ? "mb-3 border-b border-line pb-3" : "mt-4 border-t border-line pt-3"}>
      <ListHeading title={t("Actions")} count={actions.length} />
      <RowList
        label={t("Actions")}
        rows={actions.map((action) => ({ id: action.name, name: action.name, fact: facingsInWords(action) }))}
        chosen={chosen}
        onChoose={(name) => chooseAction(name as ActionName)}
      />
      {actions.length === 0 && <p className="px-1.5 text-small text-muted">{t("An action is one movement in several facings.")}</p>}
      <div className="mt-2 flex flex-wrap gap-2 px-1.5">
        {clips.length + sources.length > 1 && <Button onClick={() => setDialog("names")}>{t("By names …")}</Button>}
        {sources.length > 0 && <Button onClick={() => setDialog("rows")}>{t("By rows …")}</Button>}
        <Button onClick={make}>{t("Empty")}</Button>
      </div>
      {dialog === "names" && <ByNames onClose={() => setDialog(null)} />}
      {dialog === "rows" && <RowsDialog become="facings" onClose={() => setDialog(null)} onMade={() => {}} />}
    </section>
  );
}

function facingsInWords({ ways, facings }: Action): string {
  const present = Object.keys(facings).length;
  return present === ways ? t("{ways} ways", { ways }) : t("{present} of {ways}", { present, ways });
}
