/**
 * Remembers the first facing of rows or files in order, and the direction in which the others follow. Asked once, then kept in this
 * browser.
 */
import type { NumberedFrom } from "@caravan/core/facing";
import { FACINGS } from "@caravan/core/model";
import { create } from "zustand";
import { remember, remembered } from "../ui/remembered";

const KEY = "caravan facings begin";

const useOrder = create<NumberedFrom>(() => stored());

function stored(): NumberedFrom {
  const [first, way] = remembered(KEY)?.split(" ") ?? [];
  return { first: FACINGS.find((each) => each === first) ?? "s", clockwise: way !== "other" };
}

export function useFacingOrder(): NumberedFrom {
  return useOrder();
}

export function setFacingOrder(order: NumberedFrom): void {
  useOrder.setState(order);
  remember(KEY, `${order.first} ${order.clockwise ? "clockwise" : "other"}`);
}
