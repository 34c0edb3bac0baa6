"use client";

import type { Delivery } from "@caravan/core/model";
import { Tick } from "../../ui/tick";
import { useDelivery } from "./chosen-delivery";

const FORMATS = [
  ["apng", "APNG, exact"],
  ["gif", "GIF, for everywhere"],
] as const;

/** Which moving pictures each clip becomes. At least one. */
export function FilmSettings() {
  const { delivery, set } = useDelivery();
  const { films } = delivery;
  const toggle = (format: Delivery["films"][number], on: boolean) => {
    const next = FORMATS.map(([each]) => each).filter((each) => (each === format ? on : films.includes(each)));
    if (next.length > 0) set({ films: next });
  };
  return (
    <>
      {FORMATS.map(([format, label]) => (
        <Tick key={format} label={label} checked={films.includes(format)} onChange={(on) => toggle(format, on)} />
      ))}
    </>
  );
}
