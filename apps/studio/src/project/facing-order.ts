/**
 * Remembers the first facing of rows or files in order, and the direction in which the others follow. Asked once, then kept in this
 * browser.
 */
import type { NumberedFrom } from "@caravan/core/facing";
import { FACINGS } from "@caravan/core/model";
import { create } from "zustand";

const KEY = "caravan facings begin";

const useOrder = create<NumberedFrom>(() => remembered());

function remembered(): NumberedFrom {
  const [first, way] = (typeof localStorage === "undefined" ? null : localStorage.getItem(KEY))?.split(" ") ?? [];
  return { first: FACINGS.find((each) => each === first) ?? "s", clockwise: way !== "other" };
}

export function useFacingOrder(): NumberedFrom {
  return useOrder();
}

export function setFacingOrder(order: NumberedFrom): void {
  useOrder.setState(order);
  localStorage.setItem(KEY, `${order.first} ${order.clockwise ? "clockwise" : "other"}`);
}
