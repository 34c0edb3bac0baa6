"use client";

import { create } from "zustand";
import { remember, remembered } from "./remembered";
import { t } from "./words";

/** Whether people count from 0 or 1, remembered in this browser. Names and files never depend on it. */
const KEY = "caravan counts from";

const useCounting = create<{ readonly from: 0 | 1 }>(() => ({
  from: remembered(KEY) === "1" ? 1 : 0,
}));

/** The offset added to an index from 0 for display. */
export function useCountFrom(): 0 | 1 {
  return useCounting(({ from }) => from);
}

/** Shows the number that counting starts from, and toggles it. */
export function CountFrom() {
  const from = useCountFrom();
  const change = () => {
    const next = from === 0 ? 1 : 0;
    useCounting.setState({ from: next });
    remember(KEY, String(next));
  };
  return (
    <button
      type="button"
      onClick={change}
      title={t("Count frames, steps, rows and columns from {start} instead", { start: from === 0 ? 1 : 0 })}
      className="rounded-sm text-lapis underline decoration-dotted underline-offset-2"
    >
      {t("counted from {from}", { from })}
    </button>
  );
}
