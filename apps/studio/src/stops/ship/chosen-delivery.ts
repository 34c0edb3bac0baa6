"use client";

import { type DeliveryChange, setDelivery } from "@caravan/core/edit";
import type { Delivery } from "@caravan/core/model";
import { edit, useProject } from "../../project/open-project";
import { chosenDelivery, useView } from "../../project/view";

/** Gives the current delivery and a function that changes it, which returns an error message if the change fails. */
export function useDelivery(): { delivery: Delivery; index: number; set: (change: DeliveryChange) => string | undefined } {
  const project = useProject((each) => each);
  const index = useView((view) => chosenDelivery(project, view));
  return {
    delivery: project.deliveries[index] as Delivery,
    index,
    set: (change) => edit(setDelivery, index, change)?.message,
  };
}
