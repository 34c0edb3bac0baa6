"use client";

import { useEffect, useState } from "react";
import { remember, remembered } from "../ui/remembered";
import { THEME } from "./first-view/been-here";

export type Theme = "day" | "dusk";

/** Day or dusk: the system's choice until the person makes their own, which this browser remembers. */
export function useTheme(): { theme: Theme; toggle: () => void } {
  const [chosen, setChosen] = useState<Theme | null>(() => stored());
  const [system, setSystem] = useState<Theme>(() => (matchMedia("(prefers-color-scheme: dark)").matches ? "dusk" : "day"));
  const theme = chosen ?? system;

  useEffect(() => {
    const query = matchMedia("(prefers-color-scheme: dark)");
    const follow = () => setSystem(query.matches ? "dusk" : "day");
    query.addEventListener("change", follow);
    return () => query.removeEventListener("change", follow);
  }, []);

  useEffect(() => {
    if (chosen === null) delete document.documentElement.dataset.theme;
    else document.documentElement.dataset.theme = chosen;
  }, [chosen]);

  const toggle = () => {
    const next = theme === "dusk" ? "day" : "dusk";
    setChosen(next);
    remember(THEME, next);
  };
  return { theme, toggle };
}

function stored(): Theme | null {
  const value = remembered(THEME);
  return value === "day" || value === "dusk" ? value : null;
}
