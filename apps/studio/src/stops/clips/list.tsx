"use client";

import type { ClipName } from "@caravan/core/model";
import { useState } from "react";
import { useProject } from "../../project/open-project";
import { chooseClip, chooseClipToo, chosenAction, chosenClip, useView } from "../../project/view";
import { AS_TYPED } from "../../ui/as-typed";
import { Button } from "../../ui/button";
import { fold, useFoldedParts } from "../../ui/folded";
import { ListHeading, RowList, rowAt } from "../../ui/row-list";
import { WithMenu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { duplicateNow, removeNow } from "./clip-acts";
import { clipRows } from "./clip-rows";
import { clipMenu } from "./menus";
import { ActionsList } from "./rose/actions-list";
import { useClipsTogether } from "./selected-clips";

/** The number of clips above which a filter is shown. */
const MANY = 8;

/** All clips of the project with their lengths. Several can be selected, to be changed at once. */
export function List() {
  const project = useProject((each) => each);
  const chosen = useView((view) => (chosenAction(project, view) ? null : (chosenClip(project, view)?.name ?? null)));
  const together = useClipsTogether(project);
  const [wanted, setWanted] = useState("");
  const { clips } = project;
  const filtered = wanted.trim() !== "" && clips.length > MANY;
  const shown = filtered ? clips.filter(({ name }) => name.toLowerCase().includes(wanted.trim().toLowerCase())) : clips;
  const foldedParts = useFoldedParts();
  const rows = clipRows(shown, project.actions, ({ name }, count) => ({
    title: name,
    fact: t("{count} clips", { count }),
    // What matches is shown.
    folded: !filtered && foldedParts.has(partOf(name)),
    onFold: (folded) => fold(partOf(name), folded),
  }));
  return (
    <>
      {project.actions.length > 0 && <ActionsList />}
      <ListHeading title={t("Clips")} count={clips.length} />
      {clips.length > MANY && (
        <input
          type="search"
          aria-label={t("Filter clips")}
          placeholder={t("Filter")}
          value={wanted}
          {...AS_TYPED}
          onChange={(event) => setWanted(event.target.value)}
          className="mb-1.5 min-h-7.5 w-full rounded-box border border-line bg-raised px-2 placeholder:text-muted"
        />
      )}
      <WithMenu
        label={t("Clip menu")}
        menuOf={(target) => {
          const name = rowAt(target);
          return name === undefined ? null : clipMenu(name as ClipName);
        }}
      >
        <div>
          <RowList
            label={t("Clips")}
            rows={rows}
            chosen={chosen}
            together={new Set(together.map(({ name }) => name))}
            onChoose={(name) => chooseClip(name as ClipName)}
            onChooseToo={(name, run) =>
              chooseClipToo(
                project,
                name as ClipName,
                run,
                shown.map((clip) => clip.name),
              )
            }
          />
        </div>
      </WithMenu>
      {shown.length === 0 && filtered && <p className="px-1.5 text-small text-muted">{t("No clip matches.")}</p>}
      {chosen !== null && together.length === 0 && (
        <div className="mt-3 flex flex-wrap gap-2 px-1.5">
          <Button onClick={() => duplicateNow(chosen)}>{t("Duplicate")}</Button>
          <Button once onClick={() => removeNow(chosen)}>
            {t("Remove")}
          </Button>
        </div>
      )}
      {project.actions.length === 0 && clips.length + project.sources.length > 0 && <ActionsList />}
    </>
  );
}

function partOf(action: string): string {
  return t("clips of {action}", { action });
}
