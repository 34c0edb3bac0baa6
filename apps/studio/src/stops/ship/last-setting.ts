"use client";

import { useEffect } from "react";
import { useOpenProject } from "../../project/open-project";
import { useDelivery } from "./chosen-delivery";

/** By project, delivery and setting: what a setting was before it was switched off. For as long as the page is open. */
const last = new Map<string, unknown>();

/** What a setting of the delivery becomes that is switched on: what it was when it was switched off, otherwise as usual. */
export function useLast<Value>(setting: string, value: Value | null | undefined, usual: Value): () => Value {
  const project = useOpenProject(({ id }) => id);
  const { delivery } = useDelivery();
  const key = JSON.stringify([project, delivery.name, setting]);
  useEffect(() => {
    if (value !== null && value !== undefined) last.set(key, value);
  }, [key, value]);
  return () => (last.get(key) as Value | undefined) ?? usual;
}
