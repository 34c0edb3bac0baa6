"use client";

import { addDelivery, freeDeliveryName, removeDelivery } from "@caravan/core/edit";
import type { Delivery } from "@caravan/core/model";
import { edit, useProject } from "../../project/open-project";
import { chosenDelivery, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { ListHeading, RowList } from "../../ui/row-list";
import { t } from "../../ui/words";
import { Findings } from "./findings";

/** Lists the deliveries, and the findings to look at first. */
export function List() {
  return (
    <>
      <Deliveries />
      <Findings />
    </>
  );
}

function Deliveries() {
  const project = useProject((each) => each);
  const chosen = useView((view) => chosenDelivery(project, view));
  const { deliveries } = project;
  const add = () => {
    const problem = edit(addDelivery, freeDeliveryName(project, "delivery"), null);
    if (!problem) useView.setState({ delivery: deliveries.length });
  };
  return (
    <div className="mb-4">
      <ListHeading title={t("Deliveries")} count={deliveries.length} />
      <RowList
        label={t("Deliveries")}
        rows={deliveries.map(({ name, kind }, k) => ({ id: String(k), name, fact: KIND_WORDS[kind] }))}
        chosen={String(chosen)}
        onChoose={(id) => useView.setState({ delivery: Number(id) })}
      />
      <div className="mt-1.5 flex flex-wrap gap-1.5 px-1.5">
        <Button onClick={add}>{t("Add a delivery")}</Button>
        {deliveries.length > 1 && (
          <Button once onClick={() => edit(removeDelivery, chosen)}>
            {t("Remove it")}
          </Button>
        )}
      </div>
    </div>
  );
}

const KIND_WORDS: Record<Delivery["kind"], string> = {
  atlas: t("pages"),
  grid: t("grid"),
  strips: t("strips"),
  singles: t("single"),
  films: t("films"),
};
