"use client";

import { keptRefs } from "@caravan/core/model";
import { useProject } from "../../project/open-project";
import { chooseSource, chosenSource, useView } from "../../project/view";
import { ListHeading, RowList } from "../../ui/row-list";

/** Which sheet is being cut. */
export function List() {
  const project = useProject((each) => each);
  const chosen = useView((view) => chosenSource(project, view)?.id ?? null);
  const rows = project.sources.map((source) => ({
    id: source.id,
    name: source.name,
    fact: source.cut ? keptRefs(source).length : "not cut",
  }));
  return (
    <>
      <ListHeading title="Sheets" count={rows.length} />
      <RowList label="Sheets" rows={rows} chosen={chosen} onChoose={chooseSource} />
    </>
  );
}
